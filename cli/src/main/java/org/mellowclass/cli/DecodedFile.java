package org.mellowclass.cli;

import java.io.Closeable;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;

/** A file decoded to a temporary WAV at 48 kHz, so that it can be read at any place; closing it deletes that. */
record DecodedFile(Path folder, WavReader sound) implements Closeable {

    /** Empty, with a sentence, if it cannot be read. */
    static Optional<DecodedFile> of(Path file, PrintWriter err) throws IOException {
        Path folder = Files.createTempDirectory("sound");
        Path wav = folder.resolve("sound.wav");
        try {
            SoundDecoder decoder = SoundDecoder.forOwnFiles();
            SoundFacts facts = decoder.probe(file);
            try (SampleSource source = Resampler.to(Frames.RATE, decoder.open(file, facts));
                 WavWriter writer = WavWriter.create(wav, source.channels(), Frames.RATE, SampleFormat.FLOAT_32)) {
                SampleSink.drain(source, writer);
            }
            return Optional.of(new DecodedFile(folder, WavReader.open(wav)));
        } catch (SoundRefused refused) {
            err.println(file + " " + MeasureCommand.WHY.get(refused.reason()) + ".");
        } catch (IOException failed) {
            err.println(file + " could not be read. Is it there, and may you read it?");
        }
        delete(folder);
        return Optional.empty();
    }

    @Override
    public void close() throws IOException {
        sound.close();
        delete(folder);
    }

    private static void delete(Path folder) throws IOException {
        Files.deleteIfExists(folder.resolve("sound.wav"));
        Files.delete(folder);
    }
}

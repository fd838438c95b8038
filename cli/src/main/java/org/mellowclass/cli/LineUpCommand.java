package org.mellowclass.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.measure.LineUp;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code bin/sound lineup A B}: how much later B starts than A, as one JSON object. */
@Command(name = "lineup", mixinStandardHelpOptions = true, description = {
    "Prints {offsetSeconds, driftPpm, confidence}: how much later B starts, and how far its clock runs apart.",
    "The drift is null where less than a minute is common to both. Exit code 1 if they do not match, with a sentence on stderr."})
final class LineUpCommand implements Callable<Integer> {

    @Parameters(index = "0", paramLabel = "A")
    private Path a;
    @Parameters(index = "1", paramLabel = "B")
    private Path b;
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Path folder = Files.createTempDirectory("lineup");
        Path wavA = folder.resolve("a.wav");
        Path wavB = folder.resolve("b.wav");
        try {
            if (!decoded(a, wavA) || !decoded(b, wavB)) {
                return 1;
            }
            try (RandomAccessSound first = WavReader.open(wavA); RandomAccessSound second = WavReader.open(wavB)) {
                return print(LineUp.of(first, second));
            }
        } finally {
            Files.deleteIfExists(wavA);
            Files.deleteIfExists(wavB);
            Files.delete(folder);
        }
    }

    private int print(LineUp.Result result) throws IOException {
        if (!result.matched()) {
            spec.commandLine().getErr().println(result.reason() == LineUp.Reason.TOO_SHORT
                    ? "One of them is too short to be lined up." : "Nothing common to both was found.");
            return 1;
        }
        Map<String, Object> values = new LinkedHashMap<>();
        values.put("offsetSeconds", result.offsetSeconds());
        values.put("driftPpm", result.driftPpm().isPresent() ? result.driftPpm().getAsDouble() : null);
        values.put("confidence", result.confidence());
        spec.commandLine().getOut().println(new ObjectMapper().writeValueAsString(values));
        return 0;
    }

    /** Decodes a file to a WAV at 48 kHz, so that it can be read at any place. */
    private boolean decoded(Path file, Path wav) {
        try {
            SoundDecoder decoder = SoundDecoder.forOwnFiles();
            SoundFacts facts = decoder.probe(file);
            try (SampleSource source = Resampler.to(Frames.RATE, decoder.open(file, facts));
                 WavWriter writer = WavWriter.create(wav, source.channels(), Frames.RATE, SampleFormat.FLOAT_32)) {
                SampleSink.drain(source, writer);
            }
            return true;
        } catch (SoundRefused refused) {
            spec.commandLine().getErr().println(file + " " + MeasureCommand.WHY.get(refused.reason()) + ".");
        } catch (IOException failed) {
            spec.commandLine().getErr().println(file + " could not be read. Is it there, and may you read it?");
        }
        return false;
    }
}

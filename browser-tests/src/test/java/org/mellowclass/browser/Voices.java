package org.mellowclass.browser;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundRefused;

/** Spoken sound for journeys: made by espeak-ng and sox, read back at 48 kHz. */
final class Voices {

    private Voices() {
    }

    /**
     * Speaks sentences one after the other, with a second and a half of silence before each and behind the last.
     *
     * @return a mono WAV of 16 bits at 44.1 kHz
     */
    static Path speak(Path folder, List<String> sentences) throws IOException, InterruptedException {
        List<String> join = new ArrayList<>(List.of("sox", "-D"));
        for (int i = 0; i < sentences.size(); i++) {
            Path spoken = folder.resolve("sentence-" + i + ".wav");
            Path padded = folder.resolve("padded-" + i + ".wav");
            run("espeak-ng", "-v", i % 2 == 0 ? "en-gb+f3" : "en-us+m2", "-s", "160", "-w", spoken.toString(), sentences.get(i));
            run("sox", "-D", spoken.toString(), "-r", "44100", "-b", "16", padded.toString(), "gain", "-n", "-9",
                    "pad", "1.5", i == sentences.size() - 1 ? "1.5" : "0");
            join.add(padded.toString());
        }
        Path voice = folder.resolve("voice.wav");
        join.add(voice.toString());
        run(join.toArray(String[]::new));
        return voice;
    }

    /** How long a sentence is, with the silence before it, in frames at 48 kHz. */
    static int paddedFrames(Path folder, int sentence) throws IOException, SoundRefused {
        return mono(folder.resolve("padded-" + sentence + ".wav")).length;
    }

    /** The left channel of a file, at 48 kHz. */
    static float[] mono(Path file) throws IOException, SoundRefused {
        SoundDecoder decoder = SoundDecoder.forUploads();
        try (SampleSource source = Resampler.to(Frames.RATE, decoder.open(file, decoder.probe(file)))) {
            return Signal.read(source).samples()[0];
        }
    }

    static float[] mono(byte[] bytes, Path folder) throws IOException, SoundRefused {
        return mono(Files.write(folder.resolve("fetched"), bytes));
    }

    private static void run(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String words = new String(process.getInputStream().readAllBytes());
        if (process.waitFor() != 0) {
            throw new IOException(command[0] + ": " + words);
        }
    }
}

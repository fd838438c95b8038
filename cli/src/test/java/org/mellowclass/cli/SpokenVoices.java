package org.mellowclass.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.Stream;

import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.media.SoundDecoder;

/** Speech of three voices with pauses of digital silence, and the rooms it can stand in. */
final class SpokenVoices {

    private static final List<List<String>> VOICES = List.of(List.of("-v", "en-gb+f3", "-s", "165", "-p", "55"),
            List.of("-v", "en-us+m2", "-s", "150", "-p", "40"), List.of("-v", "en-gb-scotland+f2", "-s", "160", "-p", "65"));
    static final List<String> SENTENCES = List.of("At low water you can walk to the island.",
            "My grandmother kept a bell by the door.", "Nobody rings it now, but it still hums in a storm.",
            "We asked the ferryman why he never waves.", "He said that the tide takes both his hands.");
    private static final double[] PAUSES = {0.45, 0.7, 1.1, 1.6};
    private static final double VOICE_DBFS = -1;
    static final int COUNT = VOICES.size();

    private static SpokenVoices spoken;

    private final List<float[]> clean = new ArrayList<>();
    private final Map<List<Object>, float[]> rooms = new HashMap<>();

    /** Spoken once for all tests of a process. */
    static synchronized SpokenVoices ofAllTests() throws Exception {
        if (spoken == null) {
            spoken = new SpokenVoices();
        }
        return spoken;
    }

    private SpokenVoices() throws Exception {
        for (int v = 0; v < VOICES.size(); v++) {
            List<float[]> parts = new ArrayList<>();
            for (int s = 0; s < SENTENCES.size(); s++) {
                parts.add(sentence(v, s));
                parts.add(new float[(int) Frames.ofMillis((long) (1000 * PAUSES[(v + s) % PAUSES.length]))]);
            }
            parts.add(sentence(v, 0));
            clean.add(normalised(joined(parts)));
        }
    }

    /** Its peak at −1 dBFS. */
    float[] voice(int number) {
        return clean.get(number);
    }

    /** A voice with a room, so many LU under it. */
    float[] noisy(int voice, Room kind, double distanceLu) throws Exception {
        float[] sound = voice(voice).clone();
        float[] room = room(kind, sound.length, voice);
        double gain = Decibels.toAmplitude(SpeechQuality.lufs(sound) - distanceLu - SpeechQuality.lufs(room));
        for (int i = 0; i < sound.length; i++) {
            sound[i] += (float) (gain * room[i]);
        }
        return sound;
    }

    enum Room { WHITE, PINK, HUM, BABBLE }

    /** Made once for each length and seed; not to be changed. */
    synchronized float[] room(Room kind, int length, int seed) throws Exception {
        List<Object> key = List.of(kind, length, seed);
        if (!rooms.containsKey(key)) {
            rooms.put(key, made(kind, length, seed));
        }
        return rooms.get(key);
    }

    private static float[] made(Room kind, int length, int seed) throws Exception {
        return switch (kind) {
            case WHITE -> withRoom(new float[length], 0, seed);
            case PINK -> pink(length);
            case HUM -> hum(length);
            case BABBLE -> babble(length, seed);
        };
    }

    private static float[] pink(int length) throws Exception {
        return written(file -> List.of("sox", "-R", "-n", "-r", "48000", "-c", "1", "-b", "24", file, "synth", length + "s", "pinknoise", "gain", "-n", "-6"));
    }

    /** A mains hum with its harmonics over a faint hiss. */
    private static float[] hum(int length) {
        double[] harmonics = {1, 0.5, 0.7, 0.2, 0.4, 0, 0.2};
        float[] sound = withRoom(new float[length], -34, 5);
        for (int i = 0; i < length; i++) {
            for (int h = 0; h < harmonics.length; h++) {
                sound[i] += (float) (harmonics[h] * Math.sin(2 * Math.PI * 50 * (h + 1) * i / Frames.RATE + h));
            }
        }
        return sound;
    }

    /** Six others who talk at once. */
    private static float[] babble(int length, int seed) throws Exception {
        float[] sound = new float[length];
        for (int talker = 0; talker < 6; talker++) {
            int number = talker;
            float[] talk = written(file -> List.of("espeak-ng", "-v", "en-gb+m" + (number + 1), "-s", Integer.toString(140 + 9 * number), "-p", Integer.toString(30 + 7 * number), "-w", file,
                    "Well, I said that the boat was never ours to lend, and he laughed. But the rope was gone, and the lamp that we had hung there in May, when the others came by "
                            + "with their baskets and their songs. And nobody knew the words to any of them."));
            for (int i = 0; i < length; i++) {
                sound[i] += talk[(int) ((i + (long) (seed + 1) * (talker + 1) * 31_337) % talk.length)];
            }
        }
        return sound;
    }

    static float[] withRoom(float[] clean, double rmsDbfs, long seed) {
        Random random = new Random(seed);
        float[] sound = clean.clone();
        double rms = Decibels.toAmplitude(rmsDbfs);
        for (int i = 0; i < sound.length; i++) {
            sound[i] += (float) (rms * random.nextGaussian());
        }
        return sound;
    }

    private static float[] sentence(int voice, int number) throws Exception {
        return written(file -> Stream.of(List.of("espeak-ng"), VOICES.get(voice), List.of("-w", file, SENTENCES.get(number))).flatMap(List::stream).toList());
    }

    /** What a command writes into the file that it is given. */
    private static float[] written(Function<String, List<String>> command) throws Exception {
        Path file = Files.createTempFile("spoken", ".wav");
        try {
            assertThat(new ProcessBuilder(command.apply(file.toString())).start().waitFor()).isZero();
            return read(file);
        } finally {
            Files.delete(file);
        }
    }

    static float[] read(Path file) throws Exception {
        SoundDecoder decoder = SoundDecoder.forOwnFiles();
        try (SampleSource source = Resampler.to(Frames.RATE, decoder.open(file, decoder.probe(file)))) {
            return Signal.read(source).samples()[0];
        }
    }

    private static float[] joined(List<float[]> parts) {
        float[] all = new float[parts.stream().mapToInt(part -> part.length).sum()];
        int at = 0;
        for (float[] part : parts) {
            System.arraycopy(part, 0, all, at, part.length);
            at += part.length;
        }
        return all;
    }

    private static float[] normalised(float[] sound) {
        float most = 0;
        for (float sample : sound) {
            most = Math.max(most, Math.abs(sample));
        }
        float gain = (float) Decibels.toAmplitude(VOICE_DBFS) / most;
        for (int i = 0; i < sound.length; i++) {
            sound[i] *= gain;
        }
        return sound;
    }
}

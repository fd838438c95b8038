package org.mellowclass.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.measure.ClippedRun;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.KWeighting;
import org.mellowclass.core.measure.Measurement;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.media.SoundDecoder;

/** What the meters find in speech of three voices into which runs, floors and pauses were planted. */
class SpokenSoundTest {

    private static final List<List<String>> VOICES = List.of(List.of("-v", "en-gb+f3", "-s", "165", "-p", "55"),
            List.of("-v", "en-us+m2", "-s", "150", "-p", "40"), List.of("-v", "en-gb-scotland+f2", "-s", "160", "-p", "65"));
    private static final List<String> SENTENCES = List.of("At low water you can walk to the island.",
            "My grandmother kept a bell by the door.", "Nobody rings it now, but it still hums in a storm.",
            "We asked the ferryman why he never waves.", "He said that the tide takes both his hands.");
    private static final double[] PAUSES = {0.45, 0.7, 1.1, 1.6};
    private static final double VOICE_DBFS = -1;

    @TempDir
    private static Path folder;
    private static final List<float[]> CLEAN = new ArrayList<>();

    @BeforeAll
    static void speak() throws Exception {
        for (int v = 0; v < VOICES.size(); v++) {
            List<float[]> parts = new ArrayList<>();
            for (int s = 0; s < SENTENCES.size(); s++) {
                parts.add(sentence(v, s));
                parts.add(new float[(int) Frames.ofMillis((long) (1000 * PAUSES[(v + s) % PAUSES.length]))]);
            }
            parts.add(sentence(v, 0));
            CLEAN.add(normalised(joined(parts)));
        }
    }

    static Stream<Arguments> voicesAndFloors() {
        return Stream.of(-70, -60, -50, -42, -35).flatMap(floor -> Stream.of(0, 1, 2).map(voice -> Arguments.of(voice, floor)));
    }

    @ParameterizedTest(name = "voice {0} in a room of {1} dBFS")
    @MethodSource("voicesAndFloors")
    void a_planted_noise_floor_reads_within_one_dB(int voice, double floorDbfs) throws IOException {
        float[] sound = withRoom(CLEAN.get(voice), floorDbfs, voice);
        assertThat(measured(sound).noiseFloorDbfs().orElseThrow()).isCloseTo(floorDbfs, within(1.0));
    }

    /** Of the edges where the clean voice crosses 25 dB under its loudness, so many in a hundred, within so many milliseconds. */
    @ParameterizedTest(name = "in {0}")
    @CsvSource({"WHITE, 90, 40", "PINK, 90, 40", "HUM, 90, 40", "BABBLE, 80, 80", "BABBLE, 60, 40"})
    void pauses_in_a_room_20_dB_under_the_voice_are_found(Room kind, int percent, int milliseconds) throws Exception {
        int edges = 0;
        int found = 0;
        for (int voice = 0; voice < VOICES.size(); voice++) {
            float[] clean = CLEAN.get(voice);
            double loudness = measured(clean).loudness().integrated().orElseThrow();
            float[] room = room(kind, clean.length, voice);
            double gain = Decibels.toAmplitude(loudness - 20 - measured(room).loudness().integrated().orElseThrow());
            float[] sound = clean.clone();
            for (int i = 0; i < sound.length; i++) {
                sound[i] += (float) (gain * room[i]);
            }
            List<Span> planted = quiet(clean, loudness - 25);
            assertThat(planted).hasSize(SENTENCES.size() + 1);
            List<Span> pauses = measured(sound).pauses().spans();
            assertThat(pauses).as("no pause where there is none").allMatch(pause -> planted.stream().anyMatch(it -> it.startFrame() < pause.endFrame() && pause.startFrame() < it.endFrame()));
            for (Span pause : planted) {
                edges += 2;
                found += pauses.stream().anyMatch(it -> Math.abs(it.startFrame() - pause.startFrame()) <= Frames.ofMillis(milliseconds)) ? 1 : 0;
                found += pauses.stream().anyMatch(it -> Math.abs(it.endFrame() - pause.endFrame()) <= Frames.ofMillis(milliseconds)) ? 1 : 0;
            }
        }
        assertThat(100 * found).as("%d of %d edges", found, edges).isGreaterThanOrEqualTo(percent * edges);
    }

    private enum Room { WHITE, PINK, HUM, BABBLE }

    private static float[] room(Room kind, int length, int seed) throws Exception {
        return switch (kind) {
            case WHITE -> withRoom(new float[length], 0, seed);
            case PINK -> pink(length);
            case HUM -> hum(length);
            case BABBLE -> babble(length, seed);
        };
    }

    private static float[] pink(int length) throws Exception {
        Path file = folder.resolve("pink.wav");
        assertThat(new ProcessBuilder("sox", "-R", "-n", "-r", "48000", "-c", "1", "-b", "24", file.toString(), "synth", length + "s", "pinknoise", "gain", "-n", "-6").start().waitFor()).isZero();
        return read(file);
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
            Path file = folder.resolve("talker" + talker + ".wav");
            assertThat(new ProcessBuilder("espeak-ng", "-v", "en-gb+m" + (talker + 1), "-s", Integer.toString(140 + 9 * talker), "-p", Integer.toString(30 + 7 * talker), "-w", file.toString(),
                    "Well, I said that the boat was never ours to lend, and he laughed. But the rope was gone, and the lamp that we had hung there in May, when the others came by "
                            + "with their baskets and their songs. And nobody knew the words to any of them.").start().waitFor()).isZero();
            float[] talk = read(file);
            for (int i = 0; i < length; i++) {
                sound[i] += talk[(int) ((i + (long) (seed + 1) * (talker + 1) * 31_337) % talk.length)];
            }
        }
        return sound;
    }

    @ParameterizedTest(name = "voice {0}")
    @ValueSource(ints = {0, 1, 2})
    void every_planted_clipped_run_is_found_and_clean_speech_has_none(int voice) throws IOException {
        float[] clean = CLEAN.get(voice);
        assertThat(measured(clean).clippedRuns()).as("at −1 dBFS").isEmpty();
        for (float ceiling : new float[] {1f, 0.6f, 0.3f}) {
            float[] clipped = clean.clone();
            List<ClippedRun> planted = new ArrayList<>();
            int run = 0;
            for (int i = 0; i <= clipped.length; i++) {
                boolean over = i < clipped.length && Math.abs(clipped[i] * 1.5f) >= Math.min(ceiling, 0.999f);
                if (i < clipped.length) {
                    clipped[i] = Math.max(-ceiling, Math.min(ceiling, clipped[i] * 1.5f));
                }
                boolean sameSide = over && run > 0 && clipped[i] * clipped[i - 1] > 0;
                if (run > 0 && !sameSide) {
                    if (run >= 3) {
                        planted.add(new ClippedRun(0, i - run, run));
                    }
                    run = 0;
                }
                run = over ? run + 1 : run;
            }
            assertThat(planted).isNotEmpty();
            assertThat(measured(clipped).clippedRuns()).as("clipped at %s", ceiling).isEqualTo(planted);
        }
    }

    /** Where the clean voice stays under a loudness for 300 ms or more, in frames of 10 ms. */
    private static List<Span> quiet(float[] clean, double thresholdLufs) {
        KWeighting weighting = new KWeighting();
        int frame = Frames.RATE / 100;
        double threshold = frame * Decibels.toPower(thresholdLufs + 0.691);
        List<Span> spans = new ArrayList<>();
        int start = 0;
        for (int at = 0; at < clean.length; at += frame) {
            double squares = weighting.squares(clean, at, Math.min(frame, clean.length - at));
            if (squares >= threshold) {
                if (at - start >= Frames.ofMillis(300)) {
                    spans.add(new Span(start, at));
                }
                start = at + frame;
            }
        }
        if (clean.length - start >= Frames.ofMillis(300)) {
            spans.add(new Span(start, clean.length));
        }
        return spans;
    }

    private static float[] withRoom(float[] clean, double rmsDbfs, long seed) {
        Random random = new Random(seed);
        float[] sound = clean.clone();
        double rms = Decibels.toAmplitude(rmsDbfs);
        for (int i = 0; i < sound.length; i++) {
            sound[i] += (float) (rms * random.nextGaussian());
        }
        return sound;
    }

    private static Measurement measured(float[] sound) throws IOException {
        return Measurement.of(Signal.of(Frames.RATE, sound).stream(), Search.FULL_SCALE_AND_FLAT_TOPS);
    }

    private static float[] sentence(int voice, int number) throws Exception {
        Path file = folder.resolve("s" + voice + "-" + number + ".wav");
        List<String> command = new ArrayList<>(List.of("espeak-ng"));
        command.addAll(VOICES.get(voice));
        command.addAll(List.of("-w", file.toString(), SENTENCES.get(number)));
        assertThat(new ProcessBuilder(command).start().waitFor()).isZero();
        return read(file);
    }

    private static float[] read(Path file) throws Exception {
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

package org.mellowclass.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.measure.ClippedRun;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.KWeighting;
import org.mellowclass.core.measure.Measurement;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;

/** What the meters find in speech of three voices into which runs, floors and pauses were planted. */
class SpokenSoundTest {

    private static SpokenVoices spoken;

    @BeforeAll
    static void speak() throws Exception {
        spoken = SpokenVoices.ofAllTests();
    }

    static Stream<Arguments> voicesAndFloors() {
        return Stream.of(-70, -60, -50, -42, -35).flatMap(floor -> Stream.of(0, 1, 2).map(voice -> Arguments.of(voice, floor)));
    }

    @ParameterizedTest(name = "voice {0} in a room of {1} dBFS")
    @MethodSource("voicesAndFloors")
    void a_planted_noise_floor_reads_within_one_dB(int voice, double floorDbfs) throws IOException {
        float[] sound = SpokenVoices.withRoom(spoken.voice(voice), floorDbfs, voice);
        assertThat(measured(sound).noiseFloorDbfs().orElseThrow()).isCloseTo(floorDbfs, within(1.0));
    }

    /** Of the edges where the clean voice crosses 25 dB under its loudness, so many in a hundred, within so many milliseconds. */
    @ParameterizedTest(name = "in {0}")
    @CsvSource({"WHITE, 90, 40", "PINK, 90, 40", "HUM, 90, 40", "BABBLE, 80, 80", "BABBLE, 60, 40"})
    void pauses_in_a_room_20_dB_under_the_voice_are_found(SpokenVoices.Room kind, int percent, int milliseconds) throws Exception {
        int edges = 0;
        int found = 0;
        for (int voice = 0; voice < SpokenVoices.COUNT; voice++) {
            float[] clean = spoken.voice(voice);
            double loudness = measured(clean).loudness().integrated().orElseThrow();
            float[] room = spoken.room(kind, clean.length, voice);
            double gain = Decibels.toAmplitude(loudness - 20 - measured(room).loudness().integrated().orElseThrow());
            float[] sound = clean.clone();
            for (int i = 0; i < sound.length; i++) {
                sound[i] += (float) (gain * room[i]);
            }
            List<Span> planted = quiet(clean, loudness - 25);
            assertThat(planted).hasSize(SpokenVoices.SENTENCES.size() + 1);
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

    @ParameterizedTest(name = "voice {0}")
    @ValueSource(ints = {0, 1, 2})
    void every_planted_clipped_run_is_found_and_clean_speech_has_none(int voice) throws IOException {
        float[] clean = spoken.voice(voice);
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

    private static Measurement measured(float[] sound) throws IOException {
        return Measurement.of(Signal.of(Frames.RATE, sound).stream(), Search.FULL_SCALE_AND_FLAT_TOPS);
    }
}

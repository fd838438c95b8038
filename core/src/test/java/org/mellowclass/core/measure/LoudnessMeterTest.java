package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.mellowclass.core.testing.Signal.concat;
import static org.mellowclass.core.testing.Signal.silence;
import static org.mellowclass.core.testing.Signal.sine;

import java.io.IOException;
import java.util.Arrays;
import java.util.Collections;
import java.util.stream.IntStream;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.testing.Signal;

/** The cases of EBU Tech 3341 that concern loudness, and the check value of ITU-R BS.1770. */
class LoudnessMeterTest {

    @ParameterizedTest
    @ValueSource(doubles = {-23, -33})
    void cases_1_and_2_a_steady_tone_reads_its_level_on_every_meter(double level) throws IOException {
        LoudnessMeter meter = measure(tone(level, 20));
        assertThat(meter.integrated().orElseThrow()).isCloseTo(level, within(0.1));
        assertThat(meter.maxMomentary().orElseThrow()).isCloseTo(level, within(0.1));
        assertThat(meter.maxShortTerm().orElseThrow()).isCloseTo(level, within(0.1));
    }

    static Stream<Arguments> gatedCases() {
        Signal third = concat(tone(-36, 10), tone(-23, 60), tone(-36, 10));
        return Stream.of(
                Arguments.of("3", third),
                Arguments.of("3 after a minute of digital silence", concat(silence(2, 60), third)),
                Arguments.of("4", concat(tone(-72, 10), tone(-36, 10), tone(-23, 60), tone(-36, 10), tone(-72, 10))),
                Arguments.of("5", concat(tone(-26, 20), tone(-20, 20.1), tone(-26, 20))),
                Arguments.of("6, five channels", sine(Frames.RATE, 1000, 0, 20,
                        -28, -28, -24, Double.NEGATIVE_INFINITY, -30, -30)));
    }

    @ParameterizedTest(name = "case {0}")
    @MethodSource("gatedCases")
    void integrated_loudness_reads_minus_23(String name, Signal signal) throws IOException {
        assertThat(measure(signal).integrated().orElseThrow()).isCloseTo(-23, within(0.1));
    }

    @Test
    void case_6_as_five_channels_without_low_frequency_effects() throws IOException {
        Signal signal = sine(Frames.RATE, 1000, 0, 20, -28, -28, -24, -30, -30);
        assertThat(measure(signal).integrated().orElseThrow()).isCloseTo(-23, within(0.1));
    }

    @Test
    void case_9_short_term_loudness_holds_still_over_a_tone_that_changes() throws IOException {
        LoudnessMeter meter = measure(repeated(5, concat(tone(-20, 1.34), tone(-30, 1.66))));
        assertSteady(meter.shortTerm());
    }

    @Test
    void case_12_momentary_loudness_holds_still_over_a_tone_that_changes() throws IOException {
        LoudnessMeter meter = measure(repeated(25, concat(tone(-20, 0.18), tone(-30, 0.22))));
        double[] afterASecond = Arrays.stream(meter.momentary()).skip(6).toArray();
        assertSteady(afterASecond);
        assertThat(meter.maxMomentary().orElseThrow()).isCloseTo(-23, within(0.1));
    }

    static IntStream twenty() {
        return IntStream.range(0, 20);
    }

    @ParameterizedTest
    @MethodSource("twenty")
    void case_10_a_tone_of_three_seconds_fills_the_short_term_window_wherever_it_starts(int i) throws IOException {
        Signal signal = concat(silence(2, i * 0.15), tone(-23, 3), silence(2, 1));
        assertThat(measure(signal).maxShortTerm().orElseThrow()).isCloseTo(-23, within(0.1));
    }

    @ParameterizedTest
    @MethodSource("twenty")
    void case_13_a_tone_of_400_ms_fills_the_momentary_window_wherever_it_starts(int i) throws IOException {
        Signal signal = concat(silence(2, i * 0.02), tone(-23, 0.4), silence(2, 1));
        assertThat(measure(signal).maxMomentary().orElseThrow()).isCloseTo(-23, within(0.1));
    }

    @Test
    void case_11_the_highest_short_term_loudness_follows_tones_that_grow() throws IOException {
        LoudnessMeter meter = new LoudnessMeter(2);
        for (int i = 0; i < 20; i++) {
            SampleSink.drain(concat(silence(2, i * 0.15), tone(-38 + i, 3), silence(2, 3 - i * 0.15)).stream(), meter);
            assertThat(meter.maxShortTerm().orElseThrow()).isCloseTo(-38 + i, within(0.1));
        }
    }

    @Test
    void case_14_the_highest_momentary_loudness_follows_tones_that_grow() throws IOException {
        LoudnessMeter meter = new LoudnessMeter(2);
        for (int i = 0; i < 20; i++) {
            SampleSink.drain(concat(silence(2, i * 0.02), tone(-38 + i, 0.4), silence(2, 0.4 - i * 0.02)).stream(), meter);
            assertThat(meter.maxMomentary().orElseThrow()).isCloseTo(-38 + i, within(0.1));
        }
    }

    static Stream<Arguments> rangeCases() {
        return Stream.of(Arguments.of("1", 10, new double[] {-20, -30}), Arguments.of("2", 5, new double[] {-20, -15}),
                Arguments.of("3", 20, new double[] {-40, -20}), Arguments.of("4", 15, new double[] {-50, -35, -20, -35, -50}));
    }

    @ParameterizedTest(name = "case 3342-{0}")
    @MethodSource("rangeCases")
    void loudness_range_reads_the_distance_of_the_tones(String name, double range, double[] levels) throws IOException {
        Signal signal = concat(Arrays.stream(levels).mapToObj(level -> tone(level, 20)).toArray(Signal[]::new));
        assertThat(measure(signal).range().orElseThrow()).isCloseTo(range, within(1.0));
    }

    @Test
    void a_full_scale_tone_on_one_channel_reads_minus_3() throws IOException {
        assertThat(measure(sine(1, 997, 0, 20)).integrated().orElseThrow()).isCloseTo(-3.01, within(0.02));
    }

    @Test
    void silence_and_a_sound_shorter_than_a_block_have_no_loudness() throws IOException {
        assertThat(measure(silence(2, 5)).integrated()).isEmpty();
        assertThat(measure(silence(2, 5)).maxMomentary()).isEmpty();
        assertThat(measure(silence(2, 5)).range()).isEmpty();
        assertThat(measure(tone(-23, 0.3)).integrated()).isEmpty();
    }

    private static void assertSteady(double[] values) {
        assertThat(Arrays.stream(values).boxed()).isNotEmpty()
                .allSatisfy(value -> assertThat(value).isCloseTo(-23, within(0.1)));
    }

    private static Signal repeated(int times, Signal signal) {
        return concat(Collections.nCopies(times, signal).toArray(Signal[]::new));
    }

    private static Signal tone(double level, double seconds) {
        return sine(2, 1000, level, seconds);
    }

    private static LoudnessMeter measure(Signal signal) throws IOException {
        LoudnessMeter meter = new LoudnessMeter(signal.channels());
        SampleSink.drain(signal.stream(), meter);
        return meter;
    }
}

package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.mellowclass.core.testing.Signal.concat;
import static org.mellowclass.core.testing.Signal.silence;
import static org.mellowclass.core.testing.Signal.sine;

import java.io.IOException;
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
    void a_full_scale_tone_on_one_channel_reads_minus_3() throws IOException {
        assertThat(measure(sine(1, 997, 0, 20)).integrated().orElseThrow()).isCloseTo(-3.01, within(0.02));
    }

    @Test
    void silence_and_a_sound_shorter_than_a_block_have_no_loudness() throws IOException {
        assertThat(measure(silence(2, 5)).integrated()).isEmpty();
        assertThat(measure(silence(2, 5)).maxMomentary()).isEmpty();
        assertThat(measure(tone(-23, 0.3)).integrated()).isEmpty();
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

package org.mellowclass.core.treatment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;

class TrickTest {

    private static final Findings NOTHING_FOUND = new Findings(List.of(), id -> Optional.empty());
    private static final Span SECOND = new Span(Frames.RATE, 2 * Frames.RATE);

    private static float[] made(Trick trick, float[] take) throws IOException {
        Signal made = Signal.read(Treatment.of(trick).process(Signal.of(Frames.RATE, take)::stream, NOTHING_FOUND));
        assertThat((long) made.frames()).isEqualTo(trick.frames(take.length));
        return made.samples()[0];
    }

    /** A tone in each of three seconds: 300, 500 and 700 Hz. */
    private static float[] tones() {
        float[] tones = new float[3 * Frames.RATE];
        for (int i = 0; i < tones.length; i++) {
            tones[i] = (float) (0.5 * Math.sin(2 * Math.PI * (300 + 200 * (i / Frames.RATE)) * i / Frames.RATE));
        }
        return tones;
    }

    /** By upward crossings of the middle half. */
    private static double hertz(float[] samples) {
        int crossings = 0;
        for (int i = samples.length / 4; i < 3 * samples.length / 4; i++) {
            crossings += samples[i - 1] < 0 && samples[i] >= 0 ? 1 : 0;
        }
        return crossings / (samples.length / 2.0 / Frames.RATE);
    }

    private static double power(float[] samples, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += (double) samples[i] * samples[i];
        }
        return sum / (to - from);
    }

    @ParameterizedTest
    @CsvSource({"PACE, 200, 24000, 500", "PACE, 50, 96000, 500", "PACE, 140, 34286, 500", "TAPE, 200, 24000, 1000", "TAPE, 50, 96000, 250", "TAPE, 125, 38400, 625",
        "PITCH, 12, 48000, 1000", "PITCH, -12, 48000, 250", "PITCH, 7, 48000, 749.15"})
    void only_the_stretch_is_heard_so_long_and_so_high(Trick.Kind kind, double amount, int frames, double hertz) throws IOException {
        float[] made = made(new Trick(kind, amount, SECOND), tones());
        assertThat(made).hasSize(frames);
        assertThat(hertz(made)).isCloseTo(hertz, within(0.01 * hertz));
        assertThat(power(made, frames / 4, 3 * frames / 4)).isCloseTo(0.125, within(0.015));
    }

    @Test
    void backwards_is_the_same_samples_from_the_last_to_the_first() throws IOException {
        float[] noise = Signal.noise(1, -12, 3, 4).samples()[0];
        float[] made = made(new Trick(Trick.Kind.BACKWARDS, 0, SECOND), noise);
        for (int i = 0; i < made.length; i += 97) {
            assertThat(made[i]).isEqualTo(noise[2 * Frames.RATE - 1 - i]);
        }
    }

    @Test
    void an_echo_comes_back_four_times_each_half_as_loud() throws IOException {
        float[] impulse = new float[3 * Frames.RATE];
        impulse[Frames.RATE + 100] = 1;
        float[] made = made(new Trick(Trick.Kind.ECHO, 250, SECOND), impulse);
        float[] expected = new float[Frames.RATE + 4 * 12_000];
        for (int time = 0; time <= 4; time++) {
            expected[100 + time * 12_000] = 1f / (1 << time);
        }
        assertThat(made).containsExactly(expected);
    }

    @Test
    void a_hall_falls_by_sixty_decibels_in_its_time() throws IOException {
        float[] burst = new float[3 * Frames.RATE];
        System.arraycopy(Signal.noise(1, -6, 1, 4).samples()[0], 0, burst, Frames.RATE, Frames.RATE);
        float[] made = made(new Trick(Trick.Kind.HALL, 2, SECOND), burst);
        assertThat(made).hasSize(3 * Frames.RATE);
        // 0.2 s windows, one second apart: half of the time
        double fallen = 10 * Math.log10(power(made, 50_000, 59_600) / power(made, 98_000, 107_600));
        assertThat(fallen).isCloseTo(30, within(2.0));
        assertThat(Math.abs(made[made.length - 1])).isLessThan(1e-4f);
    }

    @Test
    void a_telephone_lets_through_what_a_telephone_does() throws IOException {
        for (double[] each : new double[][] {{1000, 0, 0.2}, {300, -3, 0.3}, {3400, -3, 0.3}, {75, -48, 1}}) {
            float[] made = made(new Trick(Trick.Kind.TELEPHONE, 0, SECOND), Signal.sine(1, each[0], 0, 3).samples()[0]);
            assertThat(10 * Math.log10(2 * power(made, 12_000, 36_000))).as("%s Hz", each[0]).isCloseTo(each[1], within(each[2]));
        }
    }

    @ParameterizedTest
    @EnumSource(Trick.Kind.class)
    void words_are_found_within_what_is_heard_and_again_in_the_take(Trick.Kind kind) {
        Trick trick = new Trick(kind, kind.usual(), SECOND);
        assertThat(trick.after(0)).isZero();
        assertThat(trick.after(10 * Frames.RATE)).isLessThanOrEqualTo(trick.frames(0));
        for (long frame = SECOND.startFrame(); frame <= SECOND.endFrame(); frame += 1237) {
            assertThat(trick.before(trick.after(frame))).isCloseTo(frame, within(2L));
        }
        assertThat(trick.before(trick.frames(0))).isEqualTo(SECOND.endFrame());
        Treatment treatment = Treatment.of(trick, new CorrectClock(50));
        assertThat(treatment.keepsTime()).isFalse();
        assertThat(treatment.without(Trick.class)).isEqualTo(Treatment.of(new CorrectClock(50)));
    }

    @ParameterizedTest
    @EnumSource(Trick.Kind.class)
    void silence_stays_silence_and_a_stretch_of_two_channels_is_played_too(Trick.Kind kind) throws IOException {
        Signal made = Signal.read(Treatment.of(new Trick(kind, kind.usual(), new Span(100, 5000))).process(Signal.silence(2, 1)::stream, NOTHING_FOUND));
        assertThat(made.channels()).isEqualTo(2);
        Arrays.stream(made.samples()).forEach(channel -> assertThat(power(channel, 0, channel.length)).isZero());
    }

    @Test
    void an_amount_that_is_out_of_range_is_none() {
        assertThatThrownBy(() -> new Trick(Trick.Kind.PACE, 20, SECOND)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Trick(Trick.Kind.PITCH, Double.NaN, SECOND)).isInstanceOf(IllegalArgumentException.class);
    }
}

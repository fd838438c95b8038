package org.mellowclass.core.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.testing.Signal;

class TimeStretchTest {

    private static float[] tone(double hertz, int frames) {
        float[] tone = new float[frames];
        for (int i = 0; i < frames; i++) {
            tone[i] = (float) (0.5 * Math.sin(2 * Math.PI * hertz * i / 48_000));
        }
        return tone;
    }

    private static int upwardCrossings(float[] samples) {
        int crossings = 0;
        for (int i = 1; i < samples.length; i++) {
            crossings += samples[i - 1] < 0 && samples[i] >= 0 ? 1 : 0;
        }
        return crossings;
    }

    private static double largestStep(float[] samples) {
        double largest = 0;
        for (int i = 1; i < samples.length; i++) {
            largest = Math.max(largest, Math.abs(samples[i] - samples[i - 1]));
        }
        return largest;
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.5, 0.75, 1.25, 1.5, 2})
    void a_tone_keeps_its_pitch_its_level_and_has_no_steps(double speed) {
        float[] tone = tone(440, 96_000);
        float[] stretched = TimeStretch.stretched(new float[][] {tone}, (int) (96_000 / speed))[0];
        assertThat(stretched).hasSize((int) (96_000 / speed));
        assertThat(upwardCrossings(stretched) / (stretched.length / 48_000.0)).isCloseTo(440, within(2.5));
        assertThat(largestStep(stretched)).isLessThan(1.2 * largestStep(tone));
        double power = 0;
        for (float sample : stretched) {
            power += sample * sample;
        }
        assertThat(10 * Math.log10(power / stretched.length)).isCloseTo(10 * Math.log10(0.125), within(0.5));
    }

    @Test
    void stretches_that_adjoin_join_and_begin_and_end_with_their_own_samples() {
        Signal noise = Signal.noise(2, -6, 2, 5);
        float[][] first = Arrays.stream(noise.samples()).map(channel -> Arrays.copyOfRange(channel, 0, 48_000)).toArray(float[][]::new);
        float[][] slower = TimeStretch.stretched(first, 72_000);
        for (int c = 0; c < 2; c++) {
            assertThat(Arrays.copyOf(slower[c], 900)).isEqualTo(Arrays.copyOf(first[c], 900));
            assertThat(Arrays.copyOfRange(slower[c], 71_100, 72_000)).isEqualTo(Arrays.copyOfRange(first[c], 47_100, 48_000));
        }
    }

    @Test
    void the_same_length_is_the_same_sound_and_a_moment_has_the_length_that_was_asked_for() {
        float[][] tone = {tone(440, 9_600)};
        assertThat(TimeStretch.stretched(tone, 9_600)).isDeepEqualTo(tone);
        assertThat(TimeStretch.stretched(new float[][] {tone(440, 100)}, 150)[0]).hasSize(150);
        assertThat(TimeStretch.stretched(new float[][] {tone(440, 1)}, 2)[0]).hasSize(2);
    }
}

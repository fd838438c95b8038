package org.mellowclass.core.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.testing.Signal;

class QuarterTest {

    private static float[] quartered(float[] sound, int block) {
        Quarter quarter = new Quarter();
        float[] all = new float[sound.length / Quarter.EVERY];
        float[] out = new float[block / Quarter.EVERY + 1];
        int filled = 0;
        for (int from = 0; from < sound.length; from += block) {
            int count = quarter.process(Arrays.copyOfRange(sound, from, Math.min(sound.length, from + block)), Math.min(block, sound.length - from), out);
            System.arraycopy(out, 0, all, filled, count);
            filled += count;
        }
        assertThat(filled).isEqualTo(all.length);
        return all;
    }

    /** What is low stays; what folds down onto it is weakened. */
    @ParameterizedTest
    @CsvSource({"100, 0, 0.01", "1100, -0.225, 0.02", "10900, -38.5, 0.3", "11880, -78, 1", "23000, -47.5, 0.3"})
    void a_tone_comes_out_so_much_softer(double hertz, double db, double within) {
        float[] tone = quartered(Signal.sine(1, hertz, 0, 1).samples()[0], 48_000);
        double power = 0;
        for (int i = 100; i < tone.length; i++) {
            power += (double) tone[i] * tone[i] / (tone.length - 100);
        }
        assertThat(10 * Math.log10(2 * power)).isCloseTo(db, within(within));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 480, 4096, 5000})
    void blocks_change_nothing(int block) {
        float[] noise = Signal.noise(1, -6, 0.5, 3).samples()[0];
        assertThat(quartered(noise, block)).containsExactly(quartered(noise, noise.length));
    }

    @Test
    void a_constant_stays_one() {
        float[] ones = new float[400];
        Arrays.fill(ones, 1f);
        assertThat(quartered(ones, 400)[50]).isEqualTo(1f);
    }
}

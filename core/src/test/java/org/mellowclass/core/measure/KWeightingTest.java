package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Signal;

class KWeightingTest {

    /** Denormal numbers, which it would otherwise ring on with for minutes, cost a processor many times as much. */
    @Test
    void it_comes_to_rest_in_the_digital_silence_behind_a_sound() {
        KWeighting weighting = new KWeighting();
        weighting.squares(Signal.noise(1, 0, 1, 3).samples()[0], 0, Frames.RATE);
        assertThat(weighting.atRest()).isFalse();
        weighting.squares(new float[2 * Frames.RATE], 0, 2 * Frames.RATE);
        assertThat(weighting.atRest()).isTrue();
    }
}

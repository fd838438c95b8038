package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.measure.StereoFinder.Noticed;
import org.mellowclass.core.testing.Signal;

class StereoFinderTest {

    private static final float[] VOICE = Signal.noise(1, -12, 4, 1).samples()[0];
    private static final float[] OTHER = Signal.noise(1, -14, 4, 2).samples()[0];

    private static StereoFinder heard(float[]... channels) {
        StereoFinder finder = new StereoFinder(channels.length);
        finder.accept(channels, channels[0].length);
        return finder;
    }

    private static float[] scaled(float[] samples, double factor) {
        float[] scaled = new float[samples.length];
        for (int i = 0; i < samples.length; i++) {
            scaled[i] = (float) (factor * samples[i]);
        }
        return scaled;
    }

    private static float[] sum(float[] one, float[] other) {
        float[] sum = new float[one.length];
        for (int i = 0; i < one.length; i++) {
            sum[i] = one[i] + other[i];
        }
        return sum;
    }

    @Test
    void each_oddity_is_named() {
        assertThat(heard(VOICE, new float[VOICE.length]).noticed()).isEqualTo(Noticed.RIGHT_SILENT);
        assertThat(heard(scaled(VOICE, 1e-4), VOICE).noticed()).isEqualTo(Noticed.LEFT_SILENT);
        assertThat(heard(VOICE, VOICE.clone()).noticed()).isEqualTo(Noticed.SAME_ON_BOTH);
        assertThat(heard(VOICE, sum(scaled(VOICE, -1), scaled(OTHER, 0.1))).noticed()).isEqualTo(Noticed.ONE_REVERSED);
    }

    @Test
    void two_speakers_are_found_only_where_they_take_turns_on_two_sides() {
        float[] first = Signal.concat(Signal.noise(1, -12, 3, 3), Signal.noise(1, -40, 3, 4)).samples()[0];
        float[] second = Signal.concat(Signal.noise(1, -42, 3, 5), Signal.noise(1, -14, 3, 6)).samples()[0];
        assertThat(heard(first, second).noticed()).isEqualTo(Noticed.TWO_SPEAKERS);
        assertThat(heard(sum(first, second), sum(scaled(first, 0.7), second)).noticed()).isEqualTo(Noticed.NOTHING);
    }

    @Test
    void ordinary_stereo_one_channel_and_silence_are_not_odd() {
        assertThat(heard(sum(VOICE, scaled(OTHER, 0.3)), sum(VOICE, scaled(OTHER, -0.3))).noticed()).isEqualTo(Noticed.NOTHING);
        assertThat(heard(VOICE).noticed()).isEqualTo(Noticed.NOTHING);
        assertThat(heard(new float[1000], new float[1000]).noticed()).isEqualTo(Noticed.NOTHING);
        assertThat(heard(new float[1000], new float[1000]).correlation()).isEmpty();
        assertThat(heard(VOICE, scaled(VOICE, -0.5)).correlation().getAsDouble()).isCloseTo(-1, within(1e-6));
    }
}

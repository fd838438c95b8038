package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.core.measure.HumFinder.Hum;
import org.mellowclass.core.testing.Signal;

class HumFinderTest {

    private static float[] room(double noiseDbfs, int seconds, double... hertzAndDbfs) {
        float[] room = Signal.noise(1, noiseDbfs, seconds, 5).samples()[0].clone();
        for (int i = 0; i < hertzAndDbfs.length; i += 2) {
            float[] tone = Signal.sine(1, hertzAndDbfs[i], hertzAndDbfs[i + 1], seconds).samples()[0];
            for (int s = 0; s < room.length; s++) {
                room[s] += tone[s];
            }
        }
        return room;
    }

    @ParameterizedTest
    @CsvSource({"50,150", "60,180", "50,100", "60,120", "50,250"})
    void it_names_the_right_mains_frequency(int mains, int harmonic) {
        Hum hum = HumFinder.find(room(-50, 3, mains, -54, harmonic, -60)).orElseThrow();
        assertThat(hum.mainsHz()).isEqualTo(mains);
        assertThat(hum.harmonics()).hasSize(2);
        assertThat(hum.levelDbfs()).isCloseTo(10 * Math.log10(Math.pow(10, -5.4) / 2 + Math.pow(10, -6.0) / 2), within(0.7));
    }

    @Test
    void noise_alone_a_single_tone_and_what_is_shared_by_both_are_no_hum() {
        assertThat(HumFinder.find(room(-50, 4))).isEmpty();
        assertThat(HumFinder.find(room(-50, 4, 150, -50))).isEmpty();
        assertThat(HumFinder.find(room(-50, 4, 300, -40, 600, -40))).isEmpty();
        assertThat(HumFinder.find(room(-50, 1, 50, -40, 100, -40))).as("too short to tell").isEmpty();
    }
}

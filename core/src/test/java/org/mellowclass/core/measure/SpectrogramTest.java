package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Signal;

class SpectrogramTest {

    private static double dbfs(byte step) {
        return Spectrogram.LOWEST_DBFS + (step & 0xff) * -Spectrogram.LOWEST_DBFS / 255;
    }

    @ParameterizedTest
    @CsvSource({"100, -20", "440, -6", "1000, -40", "8000, -60"})
    void a_tone_stands_in_its_band_at_its_level(double hertz, double peakDbfs) throws IOException {
        byte[] steps = Spectrogram.of(Signal.sine(1, hertz, peakDbfs, 1), 10_000, 30_000, 4);
        assertThat(steps).hasSize(4 * Spectrogram.BANDS);
        for (int column = 0; column < 4; column++) {
            int loudest = 0;
            for (int band = 0; band < Spectrogram.BANDS; band++) {
                loudest = (steps[column * Spectrogram.BANDS + band] & 0xff) > (steps[column * Spectrogram.BANDS + loudest] & 0xff) ? band : loudest;
            }
            assertThat(hertz).isBetween(Spectrogram.edgeHz(loudest) - 24, Spectrogram.edgeHz(loudest + 1) + 24);
            assertThat(dbfs(steps[column * Spectrogram.BANDS + loudest])).as("a Hann window loses up to 1.5 dB between bins").isCloseTo(peakDbfs, within(1.8));
        }
    }

    @Test
    void silence_and_what_lies_beside_the_sound_are_silent_and_a_click_is_in_every_band_of_its_column() throws IOException {
        assertThat(Spectrogram.of(Signal.silence(2, 1), -5000, 2 * Frames.RATE, 9)).containsOnly(0);
        float[] click = new float[Frames.RATE];
        click[24_000] = 1;
        byte[] steps = Spectrogram.of(Signal.of(Frames.RATE, click), 0, Frames.RATE, 11);
        for (int band = 0; band < Spectrogram.BANDS; band++) {
            assertThat(steps[5 * Spectrogram.BANDS + band] & 0xff).isGreaterThan(90);
            assertThat(steps[band]).isZero();
        }
    }
}

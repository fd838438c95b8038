package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.dsp.TruePeakInterpolator;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.testing.Signal;

/** The cases of EBU Tech 3341 that concern true peak. */
class TruePeakMeterTest {

    @ParameterizedTest(name = "case {0}")
    @CsvSource({"15, 0.5, 4, 0, -6", "16, 0.5, 4, 45, -6", "17, 0.5, 6, 60, -6", "18, 0.5, 8, 67.5, -6", "19, 1.41, 4, 45, 3"})
    void tones_whose_samples_miss_their_peaks(int number, double amplitude, int divisor, double phase, double expected)
            throws IOException {
        double level = Decibels.ofAmplitude(amplitude);
        Signal tone = Signal.sine(Frames.RATE, (double) Frames.RATE / divisor, phase, 1, level, level).fadedIn();
        assertThat(truePeak(tone)).isBetween(expected - 0.4, expected + 0.2);
    }

    @ParameterizedTest(name = "case {0} + 20")
    @ValueSource(ints = {0, 1, 2, 3})
    void a_single_peak_between_the_samples_is_found_at_every_offset(int offset) throws IOException {
        int rate = 4 * Frames.RATE;
        int burst = rate / 2;
        float[] fine = new float[rate];
        // one cycle of fs/6 at full scale (24 samples here) between two stretches of fs/4 (16 a cycle), from zero to zero
        for (int i = 0; i < fine.length; i++) {
            int after = i - burst;
            fine[i] = (float) (after < 0 ? 0.5 * Math.sin(2 * Math.PI * i / 16)
                    : after < 24 ? Math.sin(2 * Math.PI * after / 24) : 0.5 * Math.sin(2 * Math.PI * (after - 24) / 16));
        }
        float[] coarse = new float[Frames.RATE];
        for (int i = 0; i < coarse.length; i++) {
            coarse[i] = fine[4 * i + offset];
        }
        assertThat(truePeak(Signal.of(Frames.RATE, coarse).fadedIn())).isBetween(-0.4, 0.2);
    }

    @Test
    void skipping_quiet_blocks_changes_nothing() throws IOException {
        Signal noise = Signal.concat(Signal.noise(1, -3, 0.2, 1), Signal.noise(1, -12, 1, 2), Signal.noise(1, -2, 0.1, 3));
        float[] samples = noise.samples()[0];
        double most = 0;
        for (int i = 0; i < samples.length; i++) {
            most = Math.max(most, Math.abs(samples[i]));
            if (i >= TruePeakInterpolator.TAPS - 1) {
                most = Math.max(most, TruePeakInterpolator.peakAt(samples, i));
            }
        }
        assertThat(truePeak(noise)).isEqualTo(Decibels.ofAmplitude(most));
    }

    /** Behind its end a file is silent: the wave of its last samples is the same as with silence that stands in the file. */
    @Test
    void the_last_samples_count_as_if_silence_followed() throws IOException {
        float[] end = new float[200];
        end[198] = 0.9f;
        end[199] = 0.9f;
        TruePeakMeter ending = new TruePeakMeter(1);
        ending.accept(new float[][] {end}, end.length);
        TruePeakMeter followed = new TruePeakMeter(1);
        followed.accept(new float[][] {Arrays.copyOf(end, 300)}, 300);
        assertThat(ending.truePeakDbtp()).isEqualTo(followed.truePeakDbtp());
        assertThat(ending.truePeakDbtp().orElseThrow()).as("above its samples").isGreaterThan(Decibels.ofAmplitude(0.9) + 1);
    }

    @Test
    void silence_has_no_peak() throws IOException {
        TruePeakMeter meter = new TruePeakMeter(2);
        SampleSink.drain(Signal.silence(2, 1).stream(), meter);
        assertThat(meter.truePeakDbtp()).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 480, 4096, 7 * Frames.RATE})
    void second_by_second_each_has_its_own_and_the_highest_is_that_of_all(int blockFrames) throws IOException {
        Signal sound = Signal.concat(Signal.noise(1, -20, 1, 4), Signal.silence(1, 1), Signal.noise(1, -3, 1, 5), Signal.noise(1, -30, 0.5, 6));
        PeaksBySecond peaks = new PeaksBySecond(1);
        for (int at = 0; at < sound.frames(); at += blockFrames) {
            float[][] block = {Arrays.copyOfRange(sound.samples()[0], at, (int) Math.min(sound.frames(), at + blockFrames))};
            peaks.accept(block, block[0].length);
        }
        List<Double> bySecond = peaks.bySecond();
        assertThat(bySecond).hasSize(4);
        assertThat(bySecond.get(0)).isBetween(-20.0, -10.0);
        assertThat(bySecond.get(1)).as("the wave of the last samples before it").isNotNull().isLessThan(-20);
        assertThat(bySecond.get(3)).as("it begins in the wave of the last samples before it").isLessThan(bySecond.get(2));
        assertThat(peaks.truePeakDbtp().orElseThrow()).isEqualTo(bySecond.get(2)).isEqualTo(truePeak(sound));
        assertThat(new PeaksBySecond(2).truePeakDbtp()).isEmpty();
    }

    private static double truePeak(Signal signal) throws IOException {
        TruePeakMeter meter = new TruePeakMeter(signal.channels());
        SampleSink.drain(signal.stream(), meter);
        return meter.truePeakDbtp().orElseThrow();
    }
}

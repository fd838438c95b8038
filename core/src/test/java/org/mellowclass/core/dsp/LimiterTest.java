package org.mellowclass.core.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.Arrays;
import java.util.Random;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.measure.SampleStatistics;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.testing.Signal;

class LimiterTest {

    @Test
    void sound_under_the_ceiling_comes_out_as_it_went_in() throws IOException {
        Signal quiet = Signal.noise(2, -12, 1, 1);
        Signal out = Signal.read(new Limiter(quiet.stream(), 0, -1));
        assertThat(out.samples()[0]).isEqualTo(quiet.samples()[0]);
        assertThat(out.samples()[1]).isEqualTo(quiet.samples()[1]);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void no_peak_passes_the_ceiling(long seed) throws IOException {
        Signal loud = Signal.concat(Signal.noise(2, -20, 0.5, seed), Signal.noise(2, 0, 0.02, seed + 10),
                Signal.noise(2, -20, 0.5, seed + 20), Signal.sine(2, 11_000, 3, 0.2).fadedIn());
        Limiter limiter = new Limiter(loud.stream(), 6, -1);
        TruePeakMeter meter = new TruePeakMeter(2);
        long frames = SampleSink.drain(limiter, meter);
        assertThat(frames).isEqualTo(loud.frames());
        assertThat(meter.truePeakDbtp().orElseThrow()).isLessThan(-0.9);
        assertThat(limiter.deepestReductionDb()).isGreaterThan(6);
    }

    /** Measured with sixteen times as many samples, by a plain sum over 128; noise that reaches to 0.9 of the Nyquist frequency. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void what_lies_between_samples_passes_the_ceiling_by_a_tenth_of_a_dB_at_most(long seed) throws IOException {
        float[] limited = Signal.read(new Limiter(Signal.of(Frames.RATE, band(seed, 0.9)).stream(), 9, -1)).samples()[0];
        double most = 0;
        for (int step = 0; step < 16; step++) {
            for (int i = 64; i + 64 < limited.length; i++) {
                double sum = 0;
                for (int k = i - 63; k <= i + 64; k++) {
                    double x = k - i - step / 16.0;
                    sum += limited[k] * (x == 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x) * (0.5 + 0.5 * Math.cos(Math.PI * x / 65)));
                }
                most = Math.max(most, Math.abs(sum));
            }
        }
        assertThat(20 * Math.log10(most)).isBetween(-2.0, -0.9);
    }

    /** White noise without what lies above a part of the Nyquist frequency. */
    private static float[] band(long seed, double part) {
        Random random = new Random(seed);
        double[] white = random.doubles(4200, -1, 1).toArray();
        float[] sound = new float[4000];
        for (int i = 0; i < sound.length; i++) {
            double sum = 0;
            for (int k = -100; k <= 100; k++) {
                double x = Math.PI * part * k;
                sum += white[i + 100 + k] * part * (k == 0 ? 1 : Math.sin(x) / x) * (0.54 + 0.46 * Math.cos(Math.PI * k / 100));
            }
            sound[i] = (float) sum;
        }
        return sound;
    }

    /** Its static curve: what is over the ceiling comes down to it, however far; what is under it stays. */
    @ParameterizedTest
    @CsvSource({"-30, -30", "-6, -6", "-1, -1", "0, -1", "6, -1", "20, -1"})
    void a_steady_tone_comes_down_to_the_ceiling_and_no_further(double inDbfs, double outDbfs) throws IOException {
        float[] made = Signal.read(new Limiter(Signal.sine(1, 1000, inDbfs, 1).stream(), 0, -1)).samples()[0];
        assertThat(20 * Math.log10(SampleStatistics.largest(made, 20_000, 40_000))).isCloseTo(outDbfs, within(0.05));
    }

    /** Its times: two boxes of 20 ms one after the other fall and rise as a mean of what is needed within 40 ms, without a tail. */
    @Test
    void it_begins_forty_milliseconds_before_a_peak_and_has_let_go_forty_after() throws IOException {
        float[] tone = Signal.sine(1, 1000, -12, 2).samples()[0];
        float[] loud = tone.clone();
        for (int i = 0; i < 48; i++) {
            loud[48_000 + i] *= 8;
        }
        float[] made = Signal.read(new Limiter(Signal.of(Frames.RATE, loud).stream(), 0, -1)).samples()[0];
        assertThat(Arrays.mismatch(made, loud)).as("the first frame that is turned down").isBetween(48_000 - 48 * 41, 48_000 - 48 * 30);
        int last = made.length - 1;
        while (made[last] == loud[last]) {
            last--;
        }
        assertThat(last).as("the last one").isBetween(48_000 + 48 * 30, 48_000 + 48 * 42);
        assertThat(20 * Math.log10(SampleStatistics.largest(made, 48_000, 48_048))).isCloseTo(-1, within(0.2));
    }

    @Test
    void a_peak_changes_only_what_lies_within_its_memory() throws IOException {
        Signal signal = Signal.noise(1, -12, 2, 7);
        Signal before = Signal.read(new Limiter(signal.stream(), 0, -1));
        signal.samples()[0][Frames.RATE] = 4f;
        Signal after = Signal.read(new Limiter(signal.stream(), 0, -1));
        int first = Arrays.mismatch(before.samples()[0], after.samples()[0]);
        assertThat(first).isBetween(Frames.RATE - Limiter.MEMORY_FRAMES, Frames.RATE);
        int end = Frames.RATE + Limiter.MEMORY_FRAMES;
        assertThat(Arrays.copyOfRange(after.samples()[0], end, 2 * Frames.RATE))
                .isEqualTo(Arrays.copyOfRange(before.samples()[0], end, 2 * Frames.RATE));
    }

    @Test
    void a_chunk_with_enough_before_and_after_it_is_bit_equal_to_the_whole() throws IOException {
        Signal loud = Signal.noise(2, 3, 2, 8);
        Signal whole = Signal.read(new Limiter(loud.stream(), 0, -1));
        int from = 30_000;
        int preRoll = from - Limiter.MEMORY_FRAMES;
        Signal part = Signal.of(Frames.RATE, Arrays.copyOfRange(loud.samples()[0], preRoll, 60_000),
                Arrays.copyOfRange(loud.samples()[1], preRoll, 60_000));
        Signal chunk = Signal.read(new Limiter(part.stream(), 0, -1));
        assertThat(Arrays.copyOfRange(chunk.samples()[0], Limiter.MEMORY_FRAMES, Limiter.MEMORY_FRAMES + 10_000))
                .isEqualTo(Arrays.copyOfRange(whole.samples()[0], from, from + 10_000));
    }
}

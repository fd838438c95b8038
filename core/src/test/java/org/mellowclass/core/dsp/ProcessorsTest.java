package org.mellowclass.core.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Supplier;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.SungVoice;

/** What all processors promise, and what the dynamic ones do over time. */
class ProcessorsTest {

    private static final int CHANNELS = 2;
    private static final Map<String, Supplier<Processor>> ALL = new TreeMap<>(Map.of(
            "filters", () -> new Filters(CHANNELS, () -> List.of(Biquad.highPass(80, Biquad.FLAT), Biquad.peak(1500, 0.7, 6), Biquad.lowShelf(200, -3), Biquad.highShelf(5000, 4))),
            "gain", () -> new Gain(-7),
            "compressor", () -> new Compressor(CHANNELS, new Compressor.Curve(-30, 4, 6, 6, -70), 10, 120),
            "expander", () -> new Expander(CHANNELS, -40, 10, 2),
            "soft s", () -> new SoftS(CHANNELS, -40, 8),
            "noise", () -> new NoiseReducer(new float[][] {flat(1e-2f), flat(1e-3f)}, 12),
            "hum", () -> new HumCanceller(CHANNELS, 50.01, new int[] {1, 3}, new double[] {0.1, 0.05}),
            "pops", () -> new PopSoftener(CHANNELS, List.of(new Span(3000, 9000), new Span(30_000, 31_000))),
            "gains", () -> new GainCurve(new double[] {0, -3, -1, -6}, 4800, 9600, 0)));

    private static float[] flat(float power) {
        float[] noise = new float[NoiseReducer.BINS];
        Arrays.fill(noise, power);
        return noise;
    }

    static Stream<Arguments> processors() {
        return ALL.entrySet().stream().map(each -> Arguments.of(each.getKey(), each.getValue()));
    }

    /** A voice on one side and noise with silence on the other. */
    private static float[][] sound() {
        float[] voice = SungVoice.of(60_000);
        float[] noise = Signal.concat(Signal.noise(1, -20, 0.4, 3), Signal.silence(1, 0.3), Signal.noise(1, -6, 0.55, 4)).samples()[0];
        return new float[][] {voice, noise};
    }

    private static float[][] through(Processor processor, float[][] sound, int blockFrames) {
        float[][] out = new float[sound.length][sound[0].length];
        for (int at = 0; at < sound[0].length; at += blockFrames) {
            int count = Math.min(blockFrames, sound[0].length - at);
            float[][] block = new float[sound.length][];
            for (int c = 0; c < sound.length; c++) {
                block[c] = Arrays.copyOfRange(sound[c], at, at + count);
            }
            processor.process(block, count);
            for (int c = 0; c < sound.length; c++) {
                System.arraycopy(block[c], 0, out[c], at, count);
            }
        }
        return out;
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("processors")
    void the_sizes_of_blocks_change_nothing(String name, Supplier<Processor> making) {
        float[][] whole = through(making.get(), sound(), 60_000);
        for (int size : new int[] {1, 7, 480, 4096}) {
            float[][] inBlocks = through(making.get(), sound(), size);
            for (int c = 0; c < CHANNELS; c++) {
                for (int i = 0; i < whole[c].length; i++) {
                    // a turning phase is computed anew at each block, to the last bits of a double
                    assertThat(inBlocks[c][i]).as("blocks of %d, frame %d", size, i).isCloseTo(whole[c][i], within(2e-7f));
                }
            }
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("processors")
    void a_reset_is_complete(String name, Supplier<Processor> making) {
        Processor processor = making.get();
        float[][] first = through(processor, sound(), 960);
        processor.reset();
        assertThat(through(processor, sound(), 960)).isDeepEqualTo(first);
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("processors")
    void silence_stays_silence_and_whatever_comes_stays_finite(String name, Supplier<Processor> making) {
        for (float[] channel : through(making.get(), new float[CHANNELS][30_000], 480)) {
            assertThat(channel).containsOnly(0f);
        }
        float[][] loud = new float[CHANNELS][30_000];
        for (int i = 0; i < 30_000; i++) {
            loud[0][i] = i % 100 < 50 ? 1000 : -1000;
            loud[1][i] = i == 20_000 ? Float.MIN_VALUE : i % 3 == 0 ? 1e-38f : 0;
        }
        for (float[] channel : through(making.get(), loud, 480)) {
            for (float sample : channel) {
                assertThat(sample).isFinite();
            }
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("processors")
    void behind_its_latency_a_sound_is_as_long_and_stands_where_it_stood(String name, Supplier<Processor> making) throws IOException {
        Signal sound = Signal.of(Frames.RATE, sound());
        float[][] streamed = Signal.read(new Streamed(sound.stream(), making.get())).samples();
        assertThat(streamed[0]).hasSize(60_000);
        int late = making.get().latencyFrames();
        float[][] longer = {Arrays.copyOf(sound()[0], 60_000 + late), Arrays.copyOf(sound()[1], 60_000 + late)};
        float[][] delayed = through(making.get(), longer, 960);
        for (int c = 0; c < CHANNELS; c++) {
            for (int i = 0; i < 60_000; i++) {
                assertThat(streamed[c][i]).isCloseTo(delayed[c][late + i], within(2e-7f));
            }
        }
    }

    @Test
    void a_blend_lies_between_the_sound_and_what_was_made_of_it() throws IOException {
        Signal sound = Signal.of(Frames.RATE, sound());
        float[] half = Signal.read(new Blended(sound.stream(), dry -> new Streamed(dry, new Expander(CHANNELS, -20, 24, 4)), 0.5)).samples()[1];
        float[] made = Signal.read(new Streamed(sound.stream(), new Expander(CHANNELS, -20, 24, 4))).samples()[1];
        for (int i = 0; i < half.length; i++) {
            assertThat(half[i]).isCloseTo((made[i] + sound.samples()[1][i]) / 2, within(1e-6f));
        }
    }

    @ParameterizedTest
    @CsvSource({"-50, -50", "-30, -30", "-21, -21", "-18, -18.5", "-12, -16", "-6, -14", "0, -12"})
    void a_compressor_follows_its_static_curve(double inDbfs, double outDbfs) throws IOException {
        // threshold −18, ratio 3: over it a third is left; in the middle of a knee of 6 dB, (1/3 − 1)·3²/12 = −0.5 dB
        Compressor compressor = new Compressor(1, new Compressor.Curve(-18, 3, 6, 0, -110), 10, 120);
        float[] made = Signal.read(new Streamed(Signal.sine(1, 1000, inDbfs, 2).stream(), compressor)).samples()[0];
        assertThat(peakDb(made, 48_000, 90_000)).isCloseTo(outDbfs, within(0.15));
    }

    @ParameterizedTest
    @ValueSource(doubles = {5, 20, 80})
    void a_compressor_needs_its_attack_time_for_63_percent_of_its_gain(double attackMs) throws IOException {
        Signal step = Signal.concat(Signal.sine(1, 1000, -40, 1), Signal.sine(1, 1000, -6, 1));
        Compressor compressor = new Compressor(1, new Compressor.Curve(-18, 3, 0, 0, -110), attackMs, 500);
        float[] made = Signal.read(new Streamed(step.stream(), compressor)).samples()[0];
        double finalDb = -8;
        int reached = 48_000;
        while (20 * Math.log10(gainAt(made, step.samples()[0], reached)) > finalDb * (1 - Math.exp(-1))) {
            reached += 48;
        }
        // the level is a mean of 10 ms, and the gain looks 5 ms ahead
        assertThat((reached - 48_000) / 48.0).isCloseTo(attackMs, within(6.0));
    }

    @ParameterizedTest
    @ValueSource(doubles = {60, 120, 500})
    void a_compressor_needs_its_release_time_to_give_63_percent_of_its_gain_back(double releaseMs) throws IOException {
        Signal step = Signal.concat(Signal.sine(1, 1000, -6, 1), Signal.sine(1, 1000, -40, 3));
        Compressor compressor = new Compressor(1, new Compressor.Curve(-18, 3, 0, 0, -110), 10, releaseMs);
        float[] made = Signal.read(new Streamed(step.stream(), compressor)).samples()[0];
        assertThat(20 * Math.log10(gainAt(made, step.samples()[0], 46_000))).isCloseTo(-8, within(0.1));
        int back = 48_000;
        while (20 * Math.log10(gainAt(made, step.samples()[0], back)) < -8 * Math.exp(-1)) {
            back += 48;
        }
        // the level is a mean of 10 ms
        assertThat((back - 48_000) / 48.0).isCloseTo(releaseMs, within(12.0));
    }

    private static double gainAt(float[] made, float[] was, int frame) {
        double after = 0;
        double before = 0;
        for (int i = frame; i < frame + 96; i++) {
            after = Math.max(after, Math.abs(made[i]));
            before = Math.max(before, Math.abs(was[i]));
        }
        return after / before;
    }

    @Test
    void what_lies_near_the_room_is_never_raised() {
        Compressor.Curve curve = new Compressor.Curve(-30, 3, 6, 12, -55);
        for (double level = -90; level <= -45; level++) {
            assertThat(curve.gainDb(level)).isLessThanOrEqualTo(0);
        }
        assertThat(curve.gainDb(-38)).isCloseTo(12, within(0.01));
    }

    @Test
    void the_room_goes_down_by_the_range_and_words_stay() throws IOException {
        Signal sound = Signal.concat(Signal.sine(1, 300, -20, 1), Signal.sine(1, 300, -60, 1), Signal.sine(1, 300, -20, 1));
        float[] made = Signal.read(new Streamed(sound.stream(), new Expander(1, -40, 10, 2))).samples()[0];
        assertThat(peakDb(made, 10_000, 40_000)).isCloseTo(-20, within(0.05));
        assertThat(peakDb(made, 84_000, 94_000)).isCloseTo(-70, within(0.3));
        assertThat(peakDb(made, 96_000, 97_000)).as("the first 20 ms of the next word").isCloseTo(-20, within(0.5));
    }

    private static double peakDb(float[] sound, int from, int to) {
        double most = 0;
        for (int i = from; i < to; i++) {
            most = Math.max(most, Math.abs(sound[i]));
        }
        return Decibels.ofAmplitude(most);
    }

    @ParameterizedTest
    @CsvSource({"0.01, 4.0379295765381", "0.5, 0.5597735947761", "1, 0.2193839343955", "5, 0.0011482955912", "20, 9.8355252906e-11"})
    void the_exponential_integral_has_the_values_of_the_tables(double x, double value) {
        assertThat(NoiseReducer.exponentialIntegral(x)).isCloseTo(value, within(1e-9 * Math.max(1, value)));
    }

    @ParameterizedTest
    @CsvSource({"80, -3.01", "20, -24.1", "1000, 0"})
    void a_low_cut_falls_by_12_dB_an_octave(double hertz, double db) throws IOException {
        float[] made = Signal.read(new Streamed(Signal.sine(1, hertz, 0, 2).stream(), new Filters(1, () -> List.of(Biquad.highPass(80, Biquad.FLAT))))).samples()[0];
        assertThat(peakDb(made, 48_000, 96_000)).isCloseTo(db, within(0.1));
    }
}

package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;

class FindersTest {

    @Test
    void every_planted_run_is_found_across_blocks_and_channels_and_at_the_end() throws IOException {
        Signal signal = Signal.noise(2, -3, 1, 4);
        plant(signal, 0, 995, 5);
        plant(signal, 1, 20_000, 3);
        plant(signal, 0, 30_000, 2);
        plant(signal, 1, 47_990, 10);
        plant(signal, 0, 20_100, 4);
        assertThat(clipped(signal)).containsExactly(new ClippedSpot(995, 1000, 1), new ClippedSpot(20_000, 20_104, 2),
                new ClippedSpot(47_990, 48_000, 1));
    }

    @Test
    void however_much_is_clipped_every_stretch_of_it_is_kept() throws IOException {
        float[] square = new float[10 * Frames.RATE];
        for (int i = 0; i < square.length; i++) {
            boolean loud = i < 3 * Frames.RATE || i >= 9 * Frames.RATE;
            square[i] = loud && i / 4 % 2 == 0 ? 1 : 0;
        }
        List<ClippedSpot> spots = clipped(Signal.of(Frames.RATE, square));
        assertThat(spots).extracting(ClippedSpot::runs).containsExactly(18_000L, 6_000L);
        assertThat(spots.get(1).startFrame()).isEqualTo(9L * Frames.RATE);
    }

    @Test
    void clean_speech_just_under_full_scale_has_none() throws IOException {
        assertThat(clipped(Signal.sine(1, 200, -1, 2))).isEmpty();
    }

    @Test
    void flat_tops_under_full_scale_are_found_with_their_channel_to_the_last_sample() throws IOException {
        Signal signal = Signal.sine(2, 220, -3, 0.5);
        float top = 0.4f;
        for (int i = 0; i < signal.frames(); i++) {
            signal.samples()[1][i] = Math.max(-top, Math.min(top, signal.samples()[1][i]));
        }
        List<ClippedRun> runs = runs(signal);
        assertThat(runs).hasSize(220).allSatisfy(run -> assertThat(run.channel()).isEqualTo(1));
        for (ClippedRun run : runs) {
            float[] samples = signal.samples()[1];
            int start = (int) run.startFrame();
            for (int i = start; i < start + run.frames(); i++) {
                assertThat(samples[i]).isEqualTo(samples[start]);
            }
            assertThat(Math.abs(samples[start])).isEqualTo(top);
        }
    }

    @Test
    void spots_are_the_runs_that_lie_within_50_ms_of_each_other() throws IOException {
        Signal signal = Signal.noise(2, -1, 4, 11);
        for (int c = 0; c < 2; c++) {
            for (int i = 0; i < signal.frames(); i++) {
                signal.samples()[c][i] = Math.abs(signal.samples()[c][i]) > 0.75 + 0.2 * Math.sin(i / 9000.0 + c) ? 1 : signal.samples()[c][i] * 0.9f;
            }
        }
        List<ClippedSpot> expected = new ArrayList<>();
        for (ClippedRun run : runs(signal)) {
            ClippedSpot last = expected.isEmpty() ? null : expected.get(expected.size() - 1);
            boolean near = last != null && run.startFrame() - last.endFrame() <= Frames.RATE / 20;
            if (near) {
                expected.remove(last);
            }
            expected.add(near ? new ClippedSpot(last.startFrame(), Math.max(last.endFrame(), run.startFrame() + run.frames()), last.runs() + 1)
                    : new ClippedSpot(run.startFrame(), run.startFrame() + run.frames(), 1));
        }
        assertThat(expected).hasSizeGreaterThan(3);
        assertThat(clipped(signal)).isEqualTo(expected);
    }

    @Test
    void however_harsh_a_sound_is_its_spots_are_few_and_hold_every_run() {
        ClippingFinder finder = ClippingFinder.ofSpots(1, 8000, ClippingFinder.Search.FULL_SCALE_AND_FLAT_TOPS);
        Random random = new Random(3);
        int first = -1;
        int last = 0;
        for (int second = 0; second < 7200; second++) {
            // a burst of five runs somewhere in each second
            float[][] samples = new float[1][8000];
            int at = random.nextInt(7900);
            for (int run = 0; run < 5; run++) {
                Arrays.fill(samples[0], at + 10 * run, at + 10 * run + 4, 1f);
            }
            first = first < 0 ? at : first;
            last = at + 44;
            finder.accept(samples, 8000);
        }
        List<ClippedSpot> spots = finder.spots();
        assertThat(spots).hasSizeBetween(100, 1000);
        assertThat(spots.stream().mapToLong(ClippedSpot::runs).sum()).isEqualTo(7200L * 5);
        assertThat(spots.get(0).startFrame()).isEqualTo(first);
        assertThat(spots.get(spots.size() - 1).endFrame()).isEqualTo(7199L * 8000 + last);
    }

    @ParameterizedTest
    @CsvSource({"200,-0.1", "200,-6", "200,-20", "667,-0.1", "431,-0.1", "997,-3"})
    void a_tone_in_steps_of_8_bits_is_not_clipped_and_one_that_was_clipped_before_still_is(double hertz, double peakDbfs) throws IOException {
        float[] tone = Signal.sine(1, hertz, peakDbfs, 1).samples()[0].clone();
        float[] clipped = tone.clone();
        float ceiling = (float) Decibels.toAmplitude(peakDbfs) * 0.6f;
        for (int i = 0; i < tone.length; i++) {
            tone[i] = Math.round(tone[i] * 127) / 128f;
            clipped[i] = Math.round(Math.max(-ceiling, Math.min(ceiling, clipped[i])) * 127) / 128f;
        }
        assertThat(Measurement.of(Signal.of(48_000, tone).stream(), ClippingFinder.Search.FULL_SCALE_AND_FLAT_TOPS).clippedRuns()).isEmpty();
        if (hertz > 400) {
            assertThat(Measurement.of(Signal.of(48_000, clipped).stream(), ClippingFinder.Search.FULL_SCALE_AND_FLAT_TOPS).clippedRuns()).hasSizeGreaterThan((int) hertz);
        }
    }

    @Test
    void a_slow_wave_in_steps_of_16_bits_has_no_flat_tops() throws IOException {
        Signal signal = Signal.sine(1, 60, -6, 1);
        float[] samples = signal.samples()[0];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = Math.round(samples[i] * 32768) / 32768f;
        }
        assertThat(runs(signal)).isEmpty();
    }

    @Test
    void statistics_of_a_sine_are_exact_for_each_channel() throws IOException {
        Signal signal = Signal.sine(Frames.RATE, 1000, 0, 1, -6, Double.NEGATIVE_INFINITY);
        for (int i = 0; i < signal.frames(); i++) {
            signal.samples()[0][i] -= 0.125f;
        }
        SampleStatistics statistics = new SampleStatistics(2);
        SampleSink.drain(signal.stream(), statistics);
        assertThat(statistics.dcOffset().orElseThrow()).isCloseTo(-0.125, within(1e-6));
        assertThat(statistics.dcOffset(1).orElseThrow()).isZero();
        double amplitude = Math.pow(10, -6 / 20.0);
        assertThat(statistics.peakDbfs().orElseThrow()).isCloseTo(20 * Math.log10(amplitude + 0.125), within(1e-3));
        double rms = Math.sqrt(amplitude * amplitude / 2 + 0.125 * 0.125);
        assertThat(statistics.rmsDbfs(0).orElseThrow()).isCloseTo(20 * Math.log10(rms), within(1e-4));
        assertThat(statistics.crestDb(0).orElseThrow()).isCloseTo(20 * Math.log10((amplitude + 0.125) / rms), within(1e-3));
        assertThat(statistics.peakDbfs(1)).isEmpty();
        assertThat(statistics.rmsDbfs(1)).isEmpty();
        assertThat(statistics.crestDb(1)).isEmpty();
    }

    @Test
    void the_room_of_a_take_is_its_quietest_second_unless_that_is_speech_or_nothing() throws IOException {
        Signal word = Signal.sine(1, 300, -18, 2);
        Signal noise = Signal.noise(1, -50, 1.5, 3);
        assertThat(room(Signal.concat(word, Signal.silence(1, 1.2), noise, word))).hasValueSatisfying(span -> {
            assertThat(span.startFrame()).isBetween(Frames.ofMillis(3200), Frames.ofMillis(3700));
            assertThat(span.frames()).isEqualTo(Frames.RATE);
        });
        assertThat(room(Signal.concat(word, Signal.silence(1, 2), word))).isEmpty();
        assertThat(room(Signal.silence(1, 2))).isEmpty();
    }

    private static Optional<Span> room(Signal signal) throws IOException {
        SpeechLevels levels = new SpeechLevels(1);
        SampleSink.drain(signal.stream(), levels);
        return levels.room();
    }

    @Test
    void a_constant_offset_is_no_room_noise() throws IOException {
        Signal talk = Signal.concat(Signal.sine(1, 400, -12, 2), Signal.noise(1, -60, 3, 5), Signal.sine(1, 400, -12, 2), Signal.noise(1, -60, 3, 6));
        double floor = floor(talk);
        float[] shifted = talk.samples()[0].clone();
        for (int i = 0; i < shifted.length; i++) {
            shifted[i] += 0.02f;
        }
        assertThat(floor).as("white noise whose peaks are at −60").isCloseTo(-64.8, within(0.5));
        assertThat(floor(Signal.of(Frames.RATE, shifted))).isCloseTo(floor, within(0.2));
    }

    private static double floor(Signal signal) throws IOException {
        return Measurement.of(signal.stream(), ClippingFinder.Search.FULL_SCALE_ONLY).pauses().noiseFloorDbfs().orElseThrow();
    }

    @Test
    void the_loudness_that_is_measured_on_the_way_is_that_of_the_meter() throws IOException {
        for (int channels : new int[] {1, 2, 5}) {
            Signal sound = Signal.noise(channels, -20, 7.123, 3);
            LoudnessMeter meter = new LoudnessMeter(channels);
            SpeechLevels levels = new SpeechLevels(channels);
            SampleSink.drain(sound.stream(), meter, levels);
            assertThat(levels.loudness().integrated().orElseThrow()).isCloseTo(meter.integrated().orElseThrow(), within(1e-9));
            assertThat(levels.loudness().momentary()).hasSameSizeAs(meter.momentary());
        }
    }

    @Test
    void a_continuous_sound_has_no_pauses() throws IOException {
        for (Signal continuous : List.of(Signal.noise(1, -20, 6, 9), Signal.sine(1, 300, -20, 6))) {
            assertThat(Measurement.of(continuous.stream(), ClippingFinder.Search.FULL_SCALE_ONLY).pauses().spans()).isEmpty();
        }
    }

    @Test
    void nothing_has_no_statistics() {
        SampleStatistics statistics = new SampleStatistics(1);
        assertThat(statistics.dcOffset()).isEmpty();
        assertThat(statistics.peakDbfs()).isEmpty();
    }

    @Test
    void pauses_know_what_is_safe_to_cut_and_the_natural_pause() throws IOException {
        Signal word = Signal.sine(1, 300, -18, 0.8);
        Signal talk = Signal.concat(word, Signal.silence(1, 0.5), word, Signal.silence(1, 0.2), word, Signal.silence(1, 2), word);
        Pauses pauses = Measurement.of(talk.stream(), ClippingFinder.Search.FULL_SCALE_ONLY).pauses();
        assertThat(pauses.spans()).hasSize(2).first().satisfies(span -> {
            assertThat(span.startFrame()).isCloseTo(Frames.ofMillis(800), within(Frames.ofMillis(20)));
            assertThat(span.endFrame()).isCloseTo(Frames.ofMillis(1300), within(Frames.ofMillis(20)));
            assertThat(pauses.safeToCut().get(0)).isEqualTo(
                    new Span(span.startFrame() + Frames.ofMillis(120), span.endFrame() - Frames.ofMillis(80)));
        });
        assertThat(pauses.naturalFrames()).as("too few to know").isEqualTo(Frames.ofMillis(600));
        assertThat(pauses.noiseFloorDbfs()).isEmpty();

        Signal turn = Signal.concat(word, Signal.silence(1, 0.4));
        Signal many = Signal.concat(turn, turn, turn, turn, turn, turn, turn, turn, turn, word);
        assertThat(Measurement.of(many.stream(), ClippingFinder.Search.FULL_SCALE_ONLY).pauses().naturalFrames())
                .isCloseTo(Frames.ofMillis(400), within(Frames.ofMillis(20)));
    }

    private static List<ClippedRun> runs(Signal signal) throws IOException {
        ClippingFinder finder = ClippingFinder.ofRuns(signal.channels(), signal.rate(), ClippingFinder.Search.FULL_SCALE_AND_FLAT_TOPS);
        SampleSink.drain(signal.stream(), finder);
        return finder.runs();
    }

    private static List<ClippedSpot> clipped(Signal signal) throws IOException {
        ClippingFinder finder = ClippingFinder.ofSpots(signal.channels(), signal.rate(), ClippingFinder.Search.FULL_SCALE_AND_FLAT_TOPS);
        SampleSink.drain(signal.stream(), finder);
        return finder.spots();
    }

    @Test
    void a_long_silence_between_words_is_dead_air_and_an_ordinary_pause_is_not() throws IOException {
        Signal speech = Signal.sine(1, 300, -20, 3);
        Signal signal = Signal.concat(speech, Signal.silence(1, 1), speech, Signal.noise(1, -70, 3.4, 5), speech);
        assertThat(deadAir(signal)).singleElement().satisfies(span -> {
            assertThat(Frames.toSeconds(span.startFrame())).isCloseTo(7, within(0.15));
            assertThat(Frames.toSeconds(span.frames())).isCloseTo(3.4, within(0.2));
        });
    }

    @Test
    void silence_is_dead_from_start_to_end() throws IOException {
        assertThat(deadAir(Signal.silence(2, 5))).containsExactly(new Span(0, Frames.ofSeconds(5)));
    }

    private static Skyline skyline(Signal signal) throws IOException {
        Skyline skyline = new Skyline(signal.channels());
        SampleSink.drain(signal.stream(), skyline);
        skyline.finish();
        return skyline;
    }

    @Test
    void a_skyline_keeps_one_loud_sample_at_every_zoom() throws IOException {
        Signal signal = Signal.noise(1, -40, 1, 6);
        signal.samples()[0][30_000] = -1f;
        Skyline skyline = skyline(signal);
        assertThat(skyline.peakDbfs()).hasValue(0);
        assertThat(skyline(Signal.silence(1, 1)).peakDbfs()).as("of digital silence").isEmpty();
        for (int level = 0; level < Skyline.FRAMES_A_BIN.length; level++) {
            byte[] bins = skyline.bins(level);
            int frames = Skyline.FRAMES_A_BIN[level];
            assertThat(bins).hasSize(2 * ((Frames.RATE + frames - 1) / frames));
            assertThat(Byte.toUnsignedInt(bins[2 * (30_000 / frames)])).isEqualTo(255);
        }
    }

    @Test
    void a_skyline_byte_stands_for_a_level_in_even_steps_of_dB() {
        assertThat(Byte.toUnsignedInt(Skyline.toByte(1))).isEqualTo(255);
        assertThat(Byte.toUnsignedInt(Skyline.toByte(2))).isEqualTo(255);
        assertThat(Byte.toUnsignedInt(Skyline.toByte(Math.pow(10, -48 / 20.0)))).isEqualTo(128);
        assertThat(Skyline.toByte(0)).isZero();
        assertThat(Skyline.toByte(1e-6)).isZero();
    }

    private static List<Span> deadAir(Signal signal) throws IOException {
        LoudnessMeter meter = new LoudnessMeter(signal.channels());
        SampleSink.drain(signal.stream(), meter);
        return DeadAirFinder.find(meter, signal.frames(), DeadAirFinder.ordinaryPauseFrames());
    }

    private static void plant(Signal signal, int channel, int start, int length) {
        for (int i = start; i < start + length; i++) {
            signal.samples()[channel][i] = i % 2 == 0 ? 1f : -1f;
        }
    }
}

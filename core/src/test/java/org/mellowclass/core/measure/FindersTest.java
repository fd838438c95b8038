package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.List;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;

class FindersTest {

    @Test
    void every_planted_clipped_run_is_found_across_blocks_and_at_the_end() throws IOException {
        Signal signal = Signal.noise(2, -3, 1, 4);
        plant(signal, 0, 995, 5);
        plant(signal, 1, 20_000, 3);
        plant(signal, 0, 30_000, 2);
        plant(signal, 1, 47_990, 10);
        ClippingFinder finder = new ClippingFinder(2);
        SampleSink.drain(signal.stream(), finder);
        assertThat(finder.finish()).containsExactly(new ClippedRun(995, 5, 0), new ClippedRun(20_000, 3, 1),
                new ClippedRun(47_990, 10, 1));
        assertThat(finder.count()).isEqualTo(3);
    }

    @Test
    void a_square_wave_is_counted_whole_and_kept_in_part() throws IOException {
        float[] square = new float[Frames.RATE];
        for (int i = 0; i < square.length; i++) {
            square[i] = i / 4 % 2 == 0 ? 1 : 0;
        }
        ClippingFinder finder = new ClippingFinder(1);
        SampleSink.drain(Signal.of(Frames.RATE, square).stream(), finder);
        assertThat(finder.finish()).hasSize(ClippingFinder.MOST_RUNS);
        assertThat(finder.count()).isEqualTo(6000);
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

    @Test
    void a_skyline_keeps_one_loud_sample_at_every_zoom() throws IOException {
        Signal signal = Signal.noise(1, -40, 1, 6);
        signal.samples()[0][30_000] = 1f;
        Skyline skyline = new Skyline(1);
        SampleSink.drain(signal.stream(), skyline);
        skyline.finish();
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

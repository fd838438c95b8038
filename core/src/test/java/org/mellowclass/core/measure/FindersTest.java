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

    private static List<ClippedSpot> clipped(Signal signal) throws IOException {
        ClippingFinder finder = new ClippingFinder(signal.channels(), signal.rate());
        SampleSink.drain(signal.stream(), finder);
        return finder.finish();
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

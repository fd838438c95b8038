package org.mellowclass.core.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.testing.Signal;

class ResamplerTest {

    @ParameterizedTest
    @ValueSource(ints = {8000, 11025, 16000, 22050, 32000, 44100, 88200, 96000, 192000})
    void a_tone_stays_in_place_and_nothing_else_comes_in(int rate) throws IOException {
        Signal converted = convert(Signal.sine(rate, 1000, 0, 1, -6));
        Signal wanted = Signal.sine(Frames.RATE, 1000, 0, 1, -6);
        assertThat(converted.frames()).isEqualTo(Frames.RATE);
        double most = 0;
        // the hard start and end of the tone ring; the middle must be equal to 100 dB
        for (int i = 4000; i < Frames.RATE - 4000; i++) {
            most = Math.max(most, Math.abs(converted.samples()[0][i] - wanted.samples()[0][i]));
        }
        assertThat(Decibels.ofAmplitude(most)).isLessThan(-100);
    }

    @ParameterizedTest
    @ValueSource(doubles = {24_000, 24_500, 30_000, 40_000})
    void what_cannot_be_kept_at_the_lower_rate_is_gone(double hertz) throws IOException {
        Signal converted = convert(Signal.sine(96_000, hertz, 0, 1, 0));
        double most = 0;
        for (int i = 4000; i < Frames.RATE - 4000; i++) {
            most = Math.max(most, Math.abs(converted.samples()[0][i]));
        }
        assertThat(Decibels.ofAmplitude(most)).isLessThan(-95);
    }

    @Test
    void the_pass_band_is_flat_to_90_percent() throws IOException {
        Signal converted = convert(Signal.sine(44_100, 19_800, 0, 1, -6));
        double squares = 0;
        for (int i = 4000; i < 44_000; i++) {
            squares += converted.samples()[0][i] * converted.samples()[0][i];
        }
        assertThat(Decibels.ofPower(2 * squares / 40_000)).isCloseTo(-6, within(0.1));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 100, 44_099, 44_101, 100_000})
    void the_length_is_that_of_the_input_rounded_up(int frames) throws IOException {
        Signal signal = Signal.of(44_100, new float[frames], new float[frames]);
        assertThat(convert(signal).frames()).isEqualTo(Frames.converted(frames, 44_100));
    }

    @ParameterizedTest
    @ValueSource(doubles = {-100, -3.21, 0.5, 40, 100})
    void by_another_clock_every_moment_moves_by_its_share_and_nothing_else_comes_in(double ppm) throws IOException {
        int seconds = 20;
        Signal heard = Signal.read(Resampler.byClock(ppm, Signal.sine(1, 1000, -6, seconds).stream()));
        double ratio = 1 + ppm / 1e6;
        assertThat(heard.frames()).isEqualTo((long) Math.ceil(seconds * Frames.RATE * ratio - 1e-6));
        double most = 0;
        for (int i = 4000; i < heard.frames() - 4000; i++) {
            double wanted = Decibels.toAmplitude(-6) * Math.sin(2 * Math.PI * 1000 * i / ratio / Frames.RATE);
            most = Math.max(most, Math.abs(heard.samples()[0][i] - wanted));
        }
        assertThat(Decibels.ofAmplitude(most)).isLessThan(-100);
    }

    @Test
    void sound_that_has_the_rate_is_handed_through() {
        SampleSource source = Signal.silence(1, 1).stream();
        assertThat(Resampler.to(Frames.RATE, source)).isSameAs(source);
    }

    private static Signal convert(Signal signal) throws IOException {
        return Signal.read(Resampler.to(Frames.RATE, signal.stream()));
    }
}

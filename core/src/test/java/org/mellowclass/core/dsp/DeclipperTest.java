package org.mellowclass.core.dsp;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.SungVoice;

class DeclipperTest {

    private static final int FRAMES = 3 * Frames.RATE;

    /** How far the repaired tops are nearer to what was sung than the clipped ones, in dB. */
    @ParameterizedTest
    @ValueSource(doubles = {0.9, 0.7, 0.5})
    void a_voice_that_was_clipped_comes_nearer_to_what_was_sung(double ceiling) throws IOException {
        float[] sung = SungVoice.of(FRAMES);
        float[] clipped = clipped(sung, (float) ceiling);
        float[] repaired = repaired(clipped, spots(sung, ceiling));
        assertThat(Decibels.ofPower(error(clipped, sung) / error(repaired, sung))).isGreaterThan(20);
    }

    @Test
    void what_is_not_clipped_stays_as_it_is_to_the_bit() throws IOException {
        float[] sung = SungVoice.of(FRAMES);
        float[] clipped = clipped(sung, 0.6f);
        List<Span> spots = spots(sung, 0.6);
        float[] repaired = repaired(clipped, spots);
        assertThat(repaired).hasSize(FRAMES);
        for (int i = 0; i < FRAMES; i++) {
            int frame = i;
            boolean inside = spots.stream().anyMatch(spot -> frame >= spot.startFrame() && frame < spot.endFrame());
            if (!inside) {
                assertThat(repaired[i]).isEqualTo(clipped[i]);
            } else {
                assertThat(Math.abs(repaired[i])).isGreaterThanOrEqualTo(Math.abs(clipped[i]));
            }
        }
    }

    /** The places that are given are spots: runs with what lies between them. Of a take that was never resampled, only the flat tops are guessed. */
    @Test
    void what_lies_between_two_flat_tops_stays_as_it_is_to_the_bit() throws IOException {
        float[] sung = SungVoice.of(FRAMES);
        float[] clipped = clipped(sung, 0.6f);
        List<Span> runs = spots(sung, 0.6);
        Span whole = new Span(runs.get(0).startFrame(), runs.get(runs.size() - 1).endFrame());
        float[] repaired = repaired(clipped, List.of(whole));
        for (int i = 0; i < FRAMES; i++) {
            if (Math.abs(clipped[i]) < 0.998f * 0.6f) {
                assertThat(repaired[i]).as("frame %d", i).isEqualTo(clipped[i]);
            }
        }
        assertThat(Decibels.ofPower(error(clipped, sung) / error(repaired, sung))).isGreaterThan(20);
    }

    @Test
    void a_top_of_more_than_20_ms_and_silence_are_left_alone() throws IOException {
        float[] flat = new float[FRAMES];
        for (int i = 10_000; i < 12_000; i++) {
            flat[i] = 1;
        }
        assertThat(repaired(flat, List.of(new Span(10_000, 12_000), new Span(40_000, 41_000)))).isEqualTo(flat);
    }

    private static float[] clipped(float[] sung, float ceiling) {
        float[] clipped = new float[FRAMES];
        for (int i = 0; i < FRAMES; i++) {
            clipped[i] = Math.max(-ceiling, Math.min(ceiling, sung[i]));
        }
        return clipped;
    }

    private static List<Span> spots(float[] sung, double ceiling) {
        List<Span> spots = new ArrayList<>();
        for (int i = 0; i < FRAMES; ) {
            int end = i;
            while (end < FRAMES && Math.abs(sung[end]) >= ceiling) {
                end++;
            }
            if (end > i) {
                spots.add(new Span(i, end));
            }
            i = Math.max(end, i + 1);
        }
        return spots;
    }

    private static float[] repaired(float[] clipped, List<Span> spots) throws IOException {
        return Signal.read(Declipper.of(Signal.of(Frames.RATE, clipped).stream(), spots)).samples()[0];
    }

    private static double error(float[] heard, float[] sung) {
        double sum = 0;
        for (int i = 0; i < FRAMES; i++) {
            sum += (heard[i] - sung[i]) * (double) (heard[i] - sung[i]);
        }
        return sum;
    }
}

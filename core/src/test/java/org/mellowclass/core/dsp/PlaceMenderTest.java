package org.mellowclass.core.dsp;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.SungVoice;

class PlaceMenderTest {

    private static final int FRAMES = 10 * Frames.RATE;
    private static final int CLICKS = 100;

    /** Clicks of half a millisecond to 10 ms over a voice: against a straight line across, and against silence. */
    @Test
    void a_hundred_clicks_are_mended_nearer_to_what_was_sung_than_by_a_straight_line() throws IOException {
        float[] sung = SungVoice.of(FRAMES);
        float[] clicked = sung.clone();
        float[] straight = sung.clone();
        List<Span> places = new ArrayList<>();
        Random random = new Random(1);
        double silenced = 0;
        for (int click = 0; click < CLICKS; click++) {
            int from = 2000 + click * (FRAMES - 4000) / CLICKS + random.nextInt(2000);
            int to = from + 24 + random.nextInt(456);
            places.add(new Span(from, to));
            for (int i = from; i < to; i++) {
                silenced += sung[i] * (double) sung[i];
                clicked[i] += random.nextFloat() * 2 - 1;
                straight[i] = sung[from - 1] + (sung[to] - sung[from - 1]) * (i - from + 1) / (to - from + 1);
            }
        }
        float[] mended = mended(clicked, places);
        double error = error(mended, sung, places);
        assertThat(error).isLessThan(silenced / 4).isLessThan(error(straight, sung, places) / 4);
        for (int i = 0, place = 0; i < FRAMES; i++) {
            place += place < CLICKS && places.get(place).endFrame() <= i ? 1 : 0;
            if (place == CLICKS || !places.get(place).contains(i)) {
                assertThat(mended[i]).as("frame %d", i).isEqualTo(sung[i]);
            }
        }
    }

    /** Wherever a place lies in the blocks that are worked on, it becomes the same. */
    @Test
    void a_steady_tone_goes_on_through_the_longest_place_wherever_it_lies() throws IOException {
        float[] tone = Signal.sine(1, 440, -6, 1).samples()[0];
        for (int from = 9_000; from < 13_500; from += 331) {
            float[] bumped = tone.clone();
            for (int i = from; i < from + PlaceMender.LONGEST; i++) {
                bumped[i] = 0.9f;
            }
            List<Span> place = List.of(new Span(from, from + PlaceMender.LONGEST));
            double without = error(new float[tone.length], tone, place);
            assertThat(error(mended(bumped, place), tone, place)).as("a bump at %d", from).isLessThan(without / 8);
        }
    }

    @Test
    void silence_stays_silence_and_places_at_the_very_ends_are_mended_too() throws IOException {
        float[] silent = new float[5000];
        List<Span> places = List.of(new Span(0, 400), new Span(4600, 5000));
        assertThat(mended(silent, places)).isEqualTo(silent);
        float[] loud = Signal.noise(1, 0, 5000.0 / Frames.RATE, 3).samples()[0];
        for (float sample : mended(loud, places)) {
            assertThat(sample).isFinite().isBetween(-2f, 2f);
        }
    }

    private static float[] mended(float[] sound, List<Span> places) throws IOException {
        return Signal.read(PlaceMender.of(Signal.of(Frames.RATE, sound).stream(), places)).samples()[0];
    }

    private static double error(float[] heard, float[] sung, List<Span> places) {
        double sum = 0;
        for (Span place : places) {
            for (int i = (int) place.startFrame(); i < place.endFrame(); i++) {
                sum += (heard[i] - sung[i]) * (double) (heard[i] - sung[i]);
            }
        }
        return sum;
    }
}

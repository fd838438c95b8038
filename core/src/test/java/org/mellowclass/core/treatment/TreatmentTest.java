package org.mellowclass.core.treatment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.List;
import java.util.Optional;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;

class TreatmentTest {

    private static final Findings NOTHING_FOUND = new Findings(List.of(), id -> id == 9 ? Optional.empty() : Optional.of(Signal.sine(1, 100 * id, -12, 2).stream()));

    @Test
    void steps_are_in_the_order_of_their_kinds_and_there_is_one_of_each() {
        Treatment treatment = Treatment.of(new CorrectClock(50), new ChooseSides(Sides.LEFT), new RedrawTops());
        assertThat(treatment.steps()).containsExactly(new ChooseSides(Sides.LEFT), new RedrawTops(), new CorrectClock(50));
        assertThat(treatment.with(new CorrectClock(60)).steps()).containsExactly(new ChooseSides(Sides.LEFT), new RedrawTops(), new CorrectClock(60));
        assertThat(treatment.step(CorrectClock.class)).contains(new CorrectClock(50));
        assertThat(Treatment.NONE.step(RedrawTops.class)).isEmpty();
        assertThatThrownBy(() -> Treatment.of(new CorrectClock(1), new CorrectClock(2))).isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @ValueSource(doubles = {-300, -89.72160119648602, 0, 12.5, 300})
    void its_length_is_known_before_and_is_that_of_the_sound_it_makes(double ppm) throws IOException {
        Signal take = Signal.noise(2, -12, 5, 1);
        Treatment treatment = Treatment.of(new ChooseSides(Sides.RIGHT), new CorrectClock(ppm));
        Signal made = Signal.read(treatment.process(take::stream, NOTHING_FOUND));
        assertThat(made.channels()).isEqualTo(1);
        assertThat((long) made.frames()).isEqualTo(treatment.frames(take.frames()));
        assertThat(treatment.frames(480_000_000L)).isCloseTo(Math.round(480_000_000L * (1 + ppm / 1e6)), within(1L));
        assertThat(treatment.keepsTime()).isFalse();
    }

    @Test
    void a_frame_is_found_again_in_the_take_that_it_came_from() {
        Treatment treatment = Treatment.of(new CorrectClock(150));
        for (long frame : new long[] {0, 1, 6_666, 6_667, 1_000_000, 500_000_000}) {
            assertThat(treatment.toTake(treatment.fromTake(frame))).isCloseTo(frame, within(1L));
            assertThat(treatment.fromTake(frame)).isEqualTo((long) Math.floor(frame * 1.00015 + 1e-6));
        }
        assertThat(Treatment.of(new RedrawTops()).fromTake(77)).isEqualTo(77);
        assertThat(Treatment.of(new RedrawTops()).toTake(77)).isEqualTo(77);
        assertThat(Treatment.of(new RedrawTops()).keepsTime()).isTrue();
    }

    @Test
    void each_step_does_what_it_says() throws IOException {
        Signal stereo = Signal.of(48_000, new float[] {0.5f, 0.25f}, new float[] {-0.5f, 0.75f});
        assertThat(sides(Sides.LEFT, stereo)).isEqualTo(new float[][] {{0.5f, 0.25f}});
        assertThat(sides(Sides.RIGHT, stereo)).isEqualTo(new float[][] {{-0.5f, 0.75f}});
        assertThat(sides(Sides.MEAN, stereo)).isEqualTo(new float[][] {{0, 0.5f}});
        assertThat(sides(Sides.RIGHT_REVERSED, stereo)).isEqualTo(new float[][] {{0.5f, 0.25f}, {0.5f, -0.75f}});
    }

    private static float[][] sides(Sides sides, Signal stereo) throws IOException {
        return Signal.read(Treatment.of(new ChooseSides(sides)).process(stereo::stream, NOTHING_FOUND)).samples();
    }

    @Test
    void tops_are_drawn_anew_only_where_the_take_was_found_to_be_clipped() throws IOException {
        float[] clipped = Signal.sine(1, 300, 3, 1).samples()[0];
        for (int i = 0; i < clipped.length; i++) {
            clipped[i] = Math.max(-1, Math.min(1, clipped[i]));
        }
        Findings found = new Findings(List.of(new Span(24_000, 36_000)), id -> Optional.empty());
        float[] drawn = Signal.read(Treatment.of(new RedrawTops()).process(Signal.of(48_000, clipped)::stream, found)).samples()[0];
        float before = 0;
        float inside = 0;
        for (int i = 0; i < 23_000; i++) {
            before = Math.max(before, Math.abs(drawn[i]));
        }
        for (int i = 25_000; i < 35_000; i++) {
            inside = Math.max(inside, Math.abs(drawn[i]));
        }
        assertThat(before).isEqualTo(1);
        assertThat(inside).isCloseTo(1.413f, within(0.1f));
    }

    /** What came back is played instead of the take, and what else is done to it comes after. */
    @Test
    void a_file_that_came_back_is_heard_in_the_place_of_the_take() throws IOException {
        Treatment returned = Treatment.of(new ChooseSides(Sides.MEAN), new PlayReturned(4));
        assertThat(returned.steps().get(0)).isEqualTo(new PlayReturned(4));
        assertThat(returned.keepsTime()).isTrue();
        float[] heard = Signal.read(Treatment.of(new PlayReturned(4)).process(Signal.noise(2, -3, 2, 1)::stream, NOTHING_FOUND)).samples()[0];
        assertThat(heard).isEqualTo(Signal.sine(1, 400, -12, 2).samples()[0]);
        Signal take = Signal.noise(1, -3, 2, 1);
        assertThat(Signal.read(Treatment.of(new PlayReturned(9)).process(take::stream, NOTHING_FOUND)).samples()[0]).as("gone").isEqualTo(take.samples()[0]);
    }
}

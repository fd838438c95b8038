package org.mellowclass.core.cleanup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.mellowclass.core.cleanup.CleanupRefused.Reason;
import org.mellowclass.core.cleanup.Forecast.Kind;
import org.mellowclass.core.cleanup.Forecast.Told;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;

class RecipeTextTest {

    @ParameterizedTest
    @EnumSource(StarterRecipe.class)
    void what_is_written_is_read_again(StarterRecipe starter) {
        assertThat(RecipeText.recipe(RecipeText.of(starter.recipe()))).isEqualTo(starter.recipe());
    }

    @Test
    void a_line_says_all_that_can_be_set() {
        Recipe recipe = new Recipe(List.of(new Recipe.Step(StepKind.LOW_CUT, List.of(100.0), false, 100), new Recipe.Step(StepKind.TONE, List.of(-1.0, 0.5, 3.0), true, 40),
                StepKind.HUM_OUT.usual()));
        assertThat(RecipeText.of(recipe)).isEqualTo("-low-cut:100;tone:-1/0.5/3@40;hum-out");
        assertThat(RecipeText.recipe(" -low-cut:100; tone:-1/0.5/3@40;hum-out;")).isEqualTo(recipe);
        assertThat(RecipeText.recipe("").steps()).isEmpty();
        assertThat(RecipeText.step("compress:-20/4")).as("the usual ones for the rest").isEqualTo(StepKind.COMPRESS.with(-20, 4));
    }

    @ParameterizedTest
    @CsvSource({"loud, NO_SUCH_STEP", "noise-down:99, OUT_OF_RANGE", "noise-down:NaN, OUT_OF_RANGE", "noise-down:12/1, OUT_OF_RANGE", "noise-down:x, UNREADABLE",
        "noise-down:12@x, UNREADABLE", "noise-down:12@101, OUT_OF_RANGE", "ceiling;loudness, CEILING_NOT_LAST"})
    void what_is_no_recipe_is_refused(String text, Reason reason) {
        assertThatThrownBy(() -> RecipeText.recipe(text)).isInstanceOf(CleanupRefused.class).extracting("reason").isEqualTo(reason);
    }

    @Test
    void a_recipe_that_is_too_long_is_refused() {
        assertThatThrownBy(() -> RecipeText.recipe("hum-out;".repeat(300))).isInstanceOf(CleanupRefused.class).extracting("reason").isEqualTo(Reason.UNREADABLE);
        assertThatThrownBy(() -> RecipeText.recipe("hum-out;".repeat(25))).isInstanceOf(CleanupRefused.class).extracting("reason").isEqualTo(Reason.TOO_MANY_STEPS);
    }

    /** A voice at −26 LUFS, 18 LU over its room, with a hum and three clicks. */
    private static final Heard HEARD = new Heard(1, 10 * Frames.RATE, OptionalDouble.of(-26), OptionalDouble.of(-46), OptionalDouble.of(-44),
            List.of(new Span(0, Frames.RATE)), List.of(new Span(0, Frames.RATE)), Optional.of(new HumFinder.Hum(50, 49.98, List.of(), -50)), OptionalDouble.of(-24),
            List.of(new Span(1, 2), new Span(3, 4), new Span(5, 6)), List.of(), new double[0]);

    @Test
    void what_a_recipe_will_do_is_told_in_the_order_of_its_steps() {
        assertThat(Forecast.of(RecipeText.recipe("low-cut;hum-out;noise-down;clicks;compress:-20/3/6/10/120/6;loudness:-16;ceiling:-1"), HEARD)).containsExactly(
                new Told(Kind.HUM_GOES, List.of(50.0)), new Told(Kind.ROOM_FALLS, List.of(12.0)), new Told(Kind.CLICKS_GO, List.of(3.0)),
                new Told(Kind.LOUD_PARTS_HELD, List.of(-20.0, 3.0)), new Told(Kind.QUIET_PARTS_RISE, List.of(6.0)),
                // the compressor has lifted it by 6 dB already
                new Told(Kind.ALL_RISES, List.of(4.0)), new Told(Kind.PEAKS_HELD, List.of(-1.0)));
        assertThat(Forecast.of(RecipeText.recipe("-noise-down:12;loudness:-30"), HEARD)).containsExactly(new Told(Kind.ALL_FALLS, List.of(4.0)));
        // half of what is left 20 dB lower: 0.5 + 0.5 · 0.1 is 5.2 dB
        assertThat(Forecast.of(RecipeText.recipe("noise-down:20@50"), HEARD).get(0).values().get(0)).isCloseTo(5.19, within(0.01));
    }

    @Test
    void where_there_is_nothing_to_learn_from_that_is_told() {
        Heard silence = new Heard(1, 100, OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty(), List.of(), List.of(), Optional.empty(), OptionalDouble.empty(), List.of(), List.of(), new double[0]);
        assertThat(Forecast.of(RecipeText.recipe("hum-out;noise-down:12;loudness"), silence)).containsExactly(new Told(Kind.NO_HUM, List.of()), new Told(Kind.NO_PAUSE_TO_LEARN_THE_ROOM, List.of()));
    }
}

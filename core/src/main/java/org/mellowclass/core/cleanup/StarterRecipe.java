package org.mellowclass.core.cleanup;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/** Recipes that ship. */
public enum StarterRecipe {
    /** A voice in a quiet room: next to nothing. */
    QUIET_ROOM(StepKind.LOW_CUT.usual(), StepKind.CLICKS.usual(), StepKind.POPS.usual(), StepKind.SOFT_S.with(4), StepKind.LEVEL.with(3)),
    /** A voice among others. */
    NOISY_CLASSROOM(StepKind.LOW_CUT.with(100), StepKind.HUM_OUT.usual(), StepKind.NOISE_DOWN.usual(), StepKind.ROOM_DOWN.with(6),
            StepKind.CLICKS.usual(), StepKind.POPS.usual(), StepKind.LEVEL.usual()),
    /** A thin voice in a hard room. */
    PHONE_CORRIDOR(StepKind.LOW_CUT.with(120), StepKind.HUM_OUT.usual(), StepKind.NOISE_DOWN.with(12), StepKind.ROOM_DOWN.with(8),
            StepKind.TONE.with(-1, -2, 3), StepKind.LEVEL.usual()),
    /** Music that lies under voices. */
    MUSIC_BED(StepKind.LOW_CUT.with(40), StepKind.TONE.with(0, -4, 0), StepKind.COMPRESS.with(-24, 2, 6, 20, 250, 0));

    private final Recipe recipe;

    StarterRecipe(Recipe.Step... steps) {
        recipe = Recipe.of(steps);
    }

    public Recipe recipe() {
        return recipe;
    }

    /** As it is written on a command line: {@code quiet-room}. */
    public String slug() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Optional<StarterRecipe> named(String slug) {
        return Stream.of(values()).filter(recipe -> recipe.slug().equals(slug)).findFirst();
    }

    public static List<String> slugs() {
        return Stream.of(values()).map(StarterRecipe::slug).toList();
    }
}

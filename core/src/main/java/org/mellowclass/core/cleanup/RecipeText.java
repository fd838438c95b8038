package org.mellowclass.core.cleanup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

import org.mellowclass.core.cleanup.CleanupRefused.Reason;

/**
 * Recipes in one line, as they stand in addresses: steps in their order with {@code ;} between them, each
 * {@code NAME[:VALUE[/VALUE…]][@PERCENT]}, with {@code -} in front of one that is switched off. Values that are left out are the usual ones.
 */
public final class RecipeText {

    private static final int LONGEST = 2000;

    private RecipeText() {
    }

    public static String of(Recipe recipe) {
        return String.join(";", recipe.steps().stream().map(RecipeText::of).toList());
    }

    public static String of(Recipe.Step step) {
        String numbers = String.join("/", step.values().stream().map(RecipeText::number).toList());
        return (step.on() ? "" : "-") + step.kind().slug() + (numbers.isEmpty() ? "" : ":" + numbers) + (step.blendPercent() == Recipe.WHOLE_PERCENT ? "" : "@" + step.blendPercent());
    }

    private static String number(double value) {
        return value == Math.rint(value) ? Long.toString(Math.round(value)) : Double.toString(value);
    }

    /**
     * The steps of a line; whether their order defeats itself only {@link Recipe} says.
     *
     * @throws CleanupRefused if it is not written so, or a number is out of its range
     */
    public static List<Recipe.Step> steps(String text) {
        if (text.length() > LONGEST) {
            throw new CleanupRefused(Reason.UNREADABLE);
        }
        List<Recipe.Step> steps = new ArrayList<>();
        for (String step : text.split(";")) {
            if (!step.isBlank()) {
                steps.add(step(step.strip()));
            }
        }
        return steps;
    }

    /** @throws CleanupRefused as {@link #steps}, and for an order that defeats itself */
    public static Recipe recipe(String text) {
        return new Recipe(steps(text));
    }

    /** @throws CleanupRefused as {@link #steps} */
    public static Recipe.Step step(String text) {
        boolean on = !text.startsWith("-");
        String[] blended = (on ? text : text.substring(1)).split("@", 2);
        String[] named = blended[0].split(":", 2);
        StepKind kind = StepKind.named(named[0]).orElseThrow(() -> new CleanupRefused(Reason.NO_SUCH_STEP));
        try {
            double[] values = named.length == 1 ? new double[0] : Arrays.stream(named[1].split("/")).mapToDouble(Double::parseDouble).toArray();
            int percent = blended.length == 1 ? Recipe.WHOLE_PERCENT : Integer.parseInt(blended[1]);
            return new Recipe.Step(kind, kind.with(values).values(), on, percent);
        } catch (NumberFormatException noNumber) {
            throw new CleanupRefused(Reason.UNREADABLE);
        }
    }
}

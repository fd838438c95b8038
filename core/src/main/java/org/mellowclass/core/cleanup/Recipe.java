package org.mellowclass.core.cleanup;

import java.util.ArrayList;
import java.util.List;

/**
 * How takes are cleaned: steps in order. An immutable value.
 *
 * @throws CleanupRefused for an order that defeats itself, or too many steps
 */
public record Recipe(List<Step> steps) {

    public static final int MOST_STEPS = 24;
    public static final int WHOLE_PERCENT = 100;

    /**
     * One step as it is set.
     *
     * @param values       one for each parameter of its kind
     * @param on           whether it is done
     * @param blendPercent how much of it, 100 for all
     * @throws CleanupRefused for numbers out of their ranges
     */
    public record Step(StepKind kind, List<Double> values, boolean on, int blendPercent) {

        public Step {
            values = List.copyOf(values);
            boolean allowed = values.size() == kind.parameters().size() && blendPercent >= 0 && blendPercent <= WHOLE_PERCENT;
            for (int i = 0; allowed && i < values.size(); i++) {
                allowed = kind.parameters().get(i).allows(values.get(i));
            }
            if (!allowed) {
                throw new CleanupRefused(CleanupRefused.Reason.OUT_OF_RANGE);
            }
        }

        boolean done() {
            return on && blendPercent > 0;
        }
    }

    public Recipe {
        steps = List.copyOf(steps);
        if (steps.size() > MOST_STEPS) {
            throw new CleanupRefused(CleanupRefused.Reason.TOO_MANY_STEPS);
        }
        boolean limited = false;
        for (Step step : steps) {
            if (limited && step.on() && step.kind() != StepKind.CEILING) {
                throw new CleanupRefused(CleanupRefused.Reason.CEILING_NOT_LAST);
            }
            limited |= step.on() && step.kind() == StepKind.CEILING;
        }
    }

    public static Recipe of(Step... steps) {
        return new Recipe(List.of(steps));
    }

    /** This with some steps more, with their usual numbers: each where such steps usually stand, unless one of its kind is done already. */
    public Recipe and(StepKind... kinds) {
        List<Step> all = new ArrayList<>(steps);
        for (StepKind kind : kinds) {
            all.removeIf(step -> step.kind() == kind && !step.done());
            if (all.stream().noneMatch(step -> step.kind() == kind)) {
                int place = 0;
                while (place < all.size() && all.get(place).kind().compareTo(kind) < 0) {
                    place++;
                }
                all.add(place, kind.usual());
            }
        }
        return new Recipe(all);
    }

    /** Whether no step is done. */
    public boolean changesNothing() {
        return steps.stream().noneMatch(Step::done);
    }
}

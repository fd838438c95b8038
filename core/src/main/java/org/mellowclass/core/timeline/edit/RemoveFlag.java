package org.mellowclass.core.timeline;

import java.util.Set;

/** Takes a flag away. */
public record RemoveFlag(long flagId) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        if (timeline.flag(flagId).isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_FLAG);
        }
        return Edited.inPlace(timeline.withFlags(
                timeline.flags().stream().filter(flag -> flag.id() != flagId).toList(), timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return new Footprint(Set.of(), Set.of(), Set.of(flagId), Set.of());
    }

    @Override
    public RemoveFlag shiftedBy(long frames) {
        return this;
    }
}

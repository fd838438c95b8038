package org.mellowclass.core.timeline;

import java.util.Set;

/** Gives a flag another name. */
public record NameFlag(long flagId, String name) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        Flag flag = timeline.flag(flagId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_FLAG));
        if (name == null || name.isBlank()) {
            throw new EditRefused(EditRefused.Reason.NAME_MISSING);
        }
        if (flag.name().equals(name.strip())) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        Flag named = new Flag(flag.id(), flag.trackId(), flag.frame(), name.strip());
        return Edited.inPlace(timeline.withFlags(
                timeline.flags().stream().map(it -> it.id() == flagId ? named : it).toList(), timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return new Footprint(Set.of(), Set.of(), Set.of(flagId), Set.of());
    }

    @Override
    public NameFlag shiftedBy(long frames) {
        return this;
    }
}

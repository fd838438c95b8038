package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Timeline;

/** Gives a flag another name. */
public record NameFlag(long flagId, String name) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
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
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofFlags(Set.of(flagId));
    }

    /** A flag that somebody else has named meanwhile is asked about; one that is gone needs no name. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Flag was = meanwhile.base().flag(flagId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_FLAG));
        Optional<Flag> now = meanwhile.head().flag(flagId);
        if (now.isEmpty() || name != null && now.get().name().equals(name.strip())) {
            return Optional.empty();
        }
        if (!now.get().name().equals(was.name())) {
            throw new EditRefused(EditRefused.Reason.FLAG_NAMED_MEANWHILE);
        }
        return Optional.of(this);
    }
}

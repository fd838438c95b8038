package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Timeline;

/** Takes a flag away. */
public record RemoveFlag(long flagId) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        if (timeline.flag(flagId).isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_FLAG);
        }
        return Edited.inPlace(timeline.withFlags(
                timeline.flags().stream().filter(flag -> flag.id() != flagId).toList(), timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofFlags(Set.of(flagId));
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Flag was = meanwhile.base().flag(flagId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_FLAG));
        Optional<Flag> now = meanwhile.head().flag(flagId);
        if (now.isPresent() && !now.get().name().equals(was.name())) {
            throw new EditRefused(EditRefused.Reason.FLAG_NAMED_MEANWHILE);
        }
        return now.map(flag -> this);
    }
}

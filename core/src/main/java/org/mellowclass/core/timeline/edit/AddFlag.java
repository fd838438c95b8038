package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Timeline;

/** Names a moment of a track's sound. */
public record AddFlag(long trackId, long frame, String name) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        OnSpan.checkTracks(timeline, Set.of(trackId));
        if (name == null || name.isBlank()) {
            throw new EditRefused(EditRefused.Reason.NAME_MISSING);
        }
        if (frame < 0) {
            throw new EditRefused(EditRefused.Reason.SPAN_BEYOND_THE_END);
        }
        List<Flag> flags = new ArrayList<>(timeline.flags());
        flags.add(new Flag(timeline.nextId(), trackId, frame, name.strip()));
        return Edited.inPlace(timeline.withFlags(flags, timeline.nextId() + 1));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofStretch(trackId, new Span(frame, frame + 1));
    }

    /** The moment moves with its track; if it is gone, so would be its flag. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        OptionalLong now = meanwhile.map(trackId).map(frame);
        return now.isEmpty() || meanwhile.head().track(trackId).isEmpty() ? Optional.empty() : Optional.of(new AddFlag(trackId, now.getAsLong(), name));
    }
}

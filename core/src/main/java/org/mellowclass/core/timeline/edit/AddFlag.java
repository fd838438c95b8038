package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** Names a moment of a track's sound. */
public record AddFlag(long trackId, long frame, String name) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        OnSpan.checkTracks(timeline, Set.of(trackId));
        if (name == null || name.isBlank()) {
            throw new EditRefused(EditRefused.Reason.NAME_MISSING);
        }
        if (frame < 0 || frame > timeline.endFrame()) {
            throw new EditRefused(EditRefused.Reason.SPAN_BEYOND_THE_END);
        }
        List<Flag> flags = new ArrayList<>(timeline.flags());
        flags.add(new Flag(timeline.nextId(), trackId, frame, name.strip()));
        return Edited.inPlace(timeline.withFlags(flags, timeline.nextId() + 1));
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return Footprint.NOTHING;
    }

    @Override
    public AddFlag shiftedBy(long frames) {
        return new AddFlag(trackId, frame + frames, name);
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Makes an empty track, tied to the first one. */
public record AddTrack(String name) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        if (name == null || name.isBlank()) {
            throw new EditRefused(EditRefused.Reason.NAME_MISSING);
        }
        if (timeline.trackNamed(name.strip()).isPresent()) {
            throw new EditRefused(EditRefused.Reason.NAME_TAKEN);
        }
        List<Track> tracks = new ArrayList<>(timeline.tracks());
        tracks.add(new Track(timeline.nextId(), name.strip(), LayTake.FIRST_GROUP, 0, false, List.of()));
        return Edited.inPlace(new Timeline(tracks, timeline.flags(), timeline.nextId() + 1));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofName(name);
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        return name != null && meanwhile.head().trackNamed(name.strip()).isPresent() ? Optional.empty() : Optional.of(this);
    }
}

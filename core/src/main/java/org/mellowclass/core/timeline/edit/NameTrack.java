package org.mellowclass.core.timeline.edit;

import java.util.Set;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Gives a track another name, which no other track has. */
public record NameTrack(long trackId, String name) implements TrackEdit {

    @Override
    public Track set(Track track, Timeline timeline) {
        if (name == null || name.isBlank()) {
            throw new EditRefused(EditRefused.Reason.NAME_MISSING);
        }
        if (timeline.tracks().stream().anyMatch(other -> other.id() != trackId && other.name().equals(name.strip()))) {
            throw new EditRefused(EditRefused.Reason.NAME_TAKEN);
        }
        return track.named(name.strip());
    }

    /** Also of the name, which it takes. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Footprint named = Footprint.ofTracks(Set.of(trackId));
        return timeline.track(trackId).map(track -> named.and(Footprint.ofName(track.name()))).orElse(named).and(Footprint.ofName(name));
    }
}

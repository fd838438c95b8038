package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Puts a track to another place among the others. */
public record OrderTrack(long trackId, int place) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track track = timeline.track(trackId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        List<Track> tracks = new ArrayList<>(timeline.tracks());
        tracks.remove(track);
        tracks.add(Math.max(0, Math.min(tracks.size(), place)), track);
        if (tracks.equals(timeline.tracks())) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(new Timeline(tracks, timeline.flags(), timeline.nextId()));
    }

    /** A take that is on several tracks is swapped on the uppermost. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofEverything(timeline);
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        return meanwhile.head().track(trackId).map(track -> this);
    }
}

package org.mellowclass.core.timeline.edit;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Leaves a track out of the mix, or takes it in again. */
public record MuteTrack(long trackId, boolean muted) implements TrackEdit {

    @Override
    public Track set(Track track, Timeline timeline) {
        return track.withMuted(muted);
    }
}

package org.mellowclass.core.timeline.edit;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Puts a track between the left (-1) and the right (1). */
public record PanTrack(long trackId, double pan) implements TrackEdit {

    @Override
    public Track set(Track track, Timeline timeline) {
        if (!(pan >= -1 && pan <= 1)) {
            throw new EditRefused(EditRefused.Reason.PAN_OUT_OF_RANGE);
        }
        return track.withPan(pan);
    }
}

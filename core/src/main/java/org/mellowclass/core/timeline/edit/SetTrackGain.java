package org.mellowclass.core.timeline.edit;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Sets the gain of a whole track, in dB. */
public record SetTrackGain(long trackId, double gainDb) implements TrackEdit {

    @Override
    public Track set(Track track, Timeline timeline) {
        Gains.check(gainDb);
        return track.withGain(gainDb);
    }
}

package org.mellowclass.core.timeline.edit;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Ties a track to those of a group, or to none: tracks of one group are cut as one.
 *
 * @param group a group of the timeline; 0 for one of its own
 */
public record TieTrack(long trackId, int group) implements TrackEdit {

    @Override
    public Track set(Track track, Timeline timeline) {
        boolean alone = timeline.tracks().stream().noneMatch(other -> other.id() != trackId && other.group() == track.group());
        if (group == 0) {
            return alone ? track : track.tied(1 + timeline.tracks().stream().mapToInt(Track::group).max().orElse(0));
        }
        if (timeline.tracks().stream().noneMatch(other -> other.group() == group)) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_TRACK);
        }
        return track.tied(group);
    }

    /** Which tracks are tied matters to whatever is cut. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofEverything(timeline);
    }
}

package org.mellowclass.core.soundcheck;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.LongFunction;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Finds where the clipped spots of takes can be heard in an episode. */
public final class ClippedPlaces {

    private ClippedPlaces() {
    }

    /**
     * @param clippedInTake the clipped spots of a take, by its id, in frames of the take at 48 kHz
     * @return the spots that lie in clips on tracks that are not muted, in frames of the timeline, in order
     */
    public static List<ClippedSpot> in(Timeline timeline, LongFunction<List<ClippedSpot>> clippedInTake) {
        List<ClippedSpot> places = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            if (track.muted()) {
                continue;
            }
            for (Clip clip : track.clips()) {
                if (!(clip.source() instanceof TakeSource take)) {
                    continue;
                }
                long end = clip.sourceFrame() + clip.frames();
                long offset = clip.startFrame() - clip.sourceFrame();
                for (ClippedSpot spot : clippedInTake.apply(take.takeId())) {
                    if (spot.startFrame() < end && spot.endFrame() > clip.sourceFrame()) {
                        places.add(new ClippedSpot(Math.max(spot.startFrame(), clip.sourceFrame()) + offset,
                                Math.min(spot.endFrame(), end) + offset, spot.runs()));
                    }
                }
            }
        }
        places.sort(Comparator.comparingLong(ClippedSpot::startFrame));
        return places;
    }
}

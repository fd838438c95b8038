package org.mellowclass.core.soundcheck;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.LongFunction;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.RedrawTops;

/** Finds where the clipped spots of takes can be heard in an episode. */
public final class ClippedPlaces {

    private ClippedPlaces() {
    }

    /**
     * @param clippedInTake the clipped spots of a take, by its id, in frames of the take at 48 kHz
     * @return the spots that lie in clips on tracks that are not muted and have not been drawn anew, in frames of the timeline, in order
     */
    public static List<ClippedSpot> in(Timeline timeline, LongFunction<List<ClippedSpot>> clippedInTake) {
        Set<ClippedSpot> places = new HashSet<>();
        for (Track track : timeline.tracks()) {
            if (track.muted()) {
                continue;
            }
            for (Clip clip : track.clips()) {
                if (!(clip.source() instanceof TakeSource take) || take.treatment().step(RedrawTops.class).isPresent()) {
                    continue;
                }
                long offset = clip.startFrame() - clip.sourceFrame();
                for (ClippedSpot spot : clippedInTake.apply(take.takeId())) {
                    long start = Math.max(take.treatment().fromTake(spot.startFrame()) + offset, clip.startFrame());
                    long end = Math.min(take.treatment().fromTake(spot.endFrame()) + offset, clip.endFrame());
                    if (start < end) {
                        places.add(new ClippedSpot(start, end, spot.runs()));
                    }
                }
            }
        }
        return places.stream().sorted(Comparator.comparingLong(ClippedSpot::startFrame)).toList();
    }
}

package org.mellowclass.app.bench;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;

import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Track;
import org.springframework.stereotype.Component;

/** Timelines as pages draw them, for viewers who have been let through to the episode. */
@Component
public class BenchViews {

    private final TakeShelf takes;

    BenchViews(TakeShelf takes) {
        this.takes = takes;
    }

    /** What the page knows of a take; its clipped spots are null until it is measured. */
    public record TakeView(String name, String trackName, long frames, List<ClippedSpot> clipped) {
    }

    /** A timeline as the page draws it. */
    public record TimelineView(long revision, boolean canUndo, boolean canRedo, long frames, List<Track> tracks,
                               List<Flag> flags, Map<Long, TakeView> takes) {
    }

    public TimelineView view(long episodeId, Head head) {
        Map<Long, TakeView> views = new TreeMap<>();
        for (Take take : takes.ready(episodeId).values()) {
            views.put(take.id(), new TakeView(take.name(), take.trackName(), take.frames(), takes.clipped(take)));
        }
        return new TimelineView(head.seq(), head.point().undoTarget().isPresent(), head.point().redoTarget().isPresent(),
                head.timeline().endFrame(), head.timeline().tracks(), head.timeline().flags(), views);
    }

    /** The id that makes sending an edit twice harmless. */
    public static String clientId(String sent) {
        if (sent == null || !sent.matches("[0-9a-zA-Z-]{8,40}")) {
            throw new IllegalArgumentException("an edit needs a client id");
        }
        return sent;
    }
}

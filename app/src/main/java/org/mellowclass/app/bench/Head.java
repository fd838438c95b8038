package org.mellowclass.app.bench;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.history.HistoryPoint;

/** The newest revision of an episode, with its timeline. */
public record Head(HistoryPoint point, String timelineHash, Timeline timeline) {

    public long seq() {
        return point.seq();
    }
}

package org.mellowclass.app.bench;

import org.mellowclass.core.timeline.HistoryPoint;
import org.mellowclass.core.timeline.Timeline;

/** The newest revision of an episode, with its timeline. */
public record Head(HistoryPoint point, String timelineHash, Timeline timeline) {

    public long seq() {
        return point.seq();
    }
}

package org.mellowclass.core.timeline.edit;

import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;

/**
 * What an edit has made.
 *
 * @param maps where the time of tracks went
 */
public record Edited(Timeline timeline, TimeMaps maps) {

    static Edited inPlace(Timeline timeline) {
        return new Edited(timeline, TimeMaps.NONE);
    }
}

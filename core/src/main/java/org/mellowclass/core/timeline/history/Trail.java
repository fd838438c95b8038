package org.mellowclass.core.timeline.history;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Iterator;
import java.util.List;

import org.mellowclass.core.timeline.TimeMaps;

/** Where times have gone over several revisions. What was done and undone again on the way has moved nothing. */
public final class Trail {

    private Trail() {
    }

    /**
     * One revision.
     *
     * @param value what the episode was after it: the same for equal timelines
     * @param maps  where it has taken the time of tracks
     */
    public record Step(String value, TimeMaps maps) {
    }

    /**
     * @param start what the episode was before the first step
     * @param steps in order
     */
    public static TimeMaps maps(String start, List<Step> steps) {
        Deque<Step> way = new ArrayDeque<>(List.of(new Step(start, TimeMaps.NONE)));
        for (Step step : steps) {
            if (way.stream().anyMatch(earlier -> earlier.value.equals(step.value))) {
                while (!way.getLast().value.equals(step.value)) {
                    way.removeLast();
                }
            } else {
                way.addLast(step);
            }
        }
        TimeMaps maps = TimeMaps.NONE;
        Iterator<Step> rest = way.iterator();
        rest.next();
        while (rest.hasNext()) {
            maps = maps.then(rest.next().maps);
        }
        return maps;
    }
}

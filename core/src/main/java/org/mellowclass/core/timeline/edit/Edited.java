package org.mellowclass.core.timeline;

import java.util.Map;

/**
 * What an edit has made.
 *
 * @param maps where the time of tracks went, by track id; a track that is missing here has kept its time
 */
public record Edited(Timeline timeline, Map<Long, TimeMap> maps) {

    public Edited {
        maps = Map.copyOf(maps);
    }

    static Edited inPlace(Timeline timeline) {
        return new Edited(timeline, Map.of());
    }

    public TimeMap map(long trackId) {
        return maps.getOrDefault(trackId, TimeMap.IDENTITY);
    }
}

package org.mellowclass.core.timeline;

import java.util.Collections;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.LongFunction;

/** Where the time of each track of a timeline has gone, by track id; a track that is missing here has kept its time. */
public record TimeMaps(Map<Long, TimeMap> byTrack) {

    public static final TimeMaps NONE = new TimeMaps(Map.of());

    public TimeMaps {
        Map<Long, TimeMap> moved = new TreeMap<>(byTrack);
        moved.values().removeIf(TimeMap.IDENTITY::equals);
        byTrack = Collections.unmodifiableMap(moved);
    }

    public TimeMap of(long trackId) {
        return byTrack.getOrDefault(trackId, TimeMap.IDENTITY);
    }

    /** These, and then others. */
    public TimeMaps then(TimeMaps later) {
        Set<Long> tracks = new HashSet<>(byTrack.keySet());
        tracks.addAll(later.byTrack.keySet());
        return each(tracks, track -> of(track).then(later.of(track)));
    }

    /** From the new frames back to the old ones. */
    public TimeMaps inverse() {
        return each(byTrack.keySet(), track -> of(track).inverse());
    }

    private static TimeMaps each(Set<Long> tracks, LongFunction<TimeMap> map) {
        Map<Long, TimeMap> maps = new TreeMap<>();
        tracks.forEach(track -> maps.put(track, map.apply(track)));
        return new TimeMaps(maps);
    }
}

package org.mellowclass.app.bench;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.app.store.StoredJson;
import org.mellowclass.core.timeline.TimeMap;
import org.mellowclass.core.timeline.TimeMaps;
import org.springframework.stereotype.Component;

/** Time maps as they are stored, and as pages get them: by track, pieces of {@code [fromFrame, toFrame, newFrame]}. */
@Component
class StoredMaps {

    private final StoredJson<Map<Long, List<long[]>>> stored;

    StoredMaps(ObjectMapper json) {
        this.stored = StoredJson.of(json, new TypeReference<>() {
        });
    }

    /** Null for maps that move nothing. */
    String write(TimeMaps maps) {
        return maps.equals(TimeMaps.NONE) ? null : stored.write(view(maps));
    }

    TimeMaps read(String json) {
        if (json == null) {
            return TimeMaps.NONE;
        }
        Map<Long, TimeMap> maps = new TreeMap<>();
        stored.read(json).forEach((track, pieces) -> maps.put(track,
                new TimeMap(pieces.stream().map(piece -> new TimeMap.Piece(piece[0], piece[1], piece[2])).toList())));
        return new TimeMaps(maps);
    }

    static Map<Long, List<long[]>> view(TimeMaps maps) {
        Map<Long, List<long[]>> view = new TreeMap<>();
        maps.byTrack().forEach((track, map) -> view.put(track,
                map.pieces().stream().map(piece -> new long[] {piece.fromFrame(), piece.toFrame(), piece.newFrame()}).toList()));
        return view;
    }
}

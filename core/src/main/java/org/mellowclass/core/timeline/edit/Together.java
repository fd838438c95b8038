package org.mellowclass.core.timeline;

import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Edits of different tracks that are one to the student: an edit of several tracks, whose time has come apart meanwhile. */
public record Together(List<SpanEdit> edits) implements Edit {

    public Together {
        edits = List.copyOf(edits);
    }

    @Override
    public Edited applyTo(Timeline timeline) {
        Timeline now = timeline;
        Map<Long, TimeMap> maps = new HashMap<>();
        for (SpanEdit edit : edits) {
            Edited edited = edit.applyTo(now);
            now = edited.timeline();
            maps.putAll(edited.maps());
        }
        return new Edited(now, maps);
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return edits.stream().map(edit -> edit.footprint(timeline)).reduce(Footprint.NOTHING, Footprint::and);
    }

    @Override
    public Together shiftedBy(long frames) {
        return new Together(edits.stream().map(edit -> edit.shiftedBy(frames)).toList());
    }
}

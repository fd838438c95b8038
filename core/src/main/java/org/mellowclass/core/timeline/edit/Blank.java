package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

import org.mellowclass.core.sound.Span;

/**
 * Puts the take's own room in place of a span on the chosen tracks, without moving anything; true silence for takes whose
 * room is not known. Every new edge gets a fade of 5 ms.
 *
 * @param rooms for takes, by id, where in them the room alone is heard
 */
public record Blank(Span span, Set<Long> trackIds, Map<Long, Span> rooms) implements SpanEdit {

    public Blank {
        trackIds = Set.copyOf(trackIds);
        rooms = Map.copyOf(rooms);
    }

    @Override
    public Edited applyTo(Timeline timeline) {
        return Edited.inPlace(OnSpan.change(timeline, span, trackIds, this::blanked));
    }

    @Override
    public Blank on(Set<Long> otherTracks) {
        return new Blank(span, otherTracks, rooms);
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return OnSpan.footprint(timeline, span, trackIds);
    }

    @Override
    public Blank shiftedBy(long frames) {
        return new Blank(OnSpan.shifted(span, frames), trackIds, rooms);
    }

    private List<Clip> blanked(Clip clip, OnSpan.Ids ids) {
        List<Clip> clips = new ArrayList<>();
        long start = Math.max(span.startFrame(), clip.startFrame());
        long end = Math.min(span.endFrame(), clip.endFrame());
        if (clip.startFrame() < start) {
            clips.add(clip.until(start, Fade.EDGE_FRAMES));
        }
        Span room = rooms.get(clip.source().takeId());
        if (room != null && room.frames() >= 2 * RoomSource.BLEND_FRAMES) {
            RoomSource source = new RoomSource(clip.source().takeId(), room.startFrame(), room.frames());
            clips.add(new Clip(ids.take(), source, start, 0, end - start, clip.gainDb(), Fade.EDGE, Fade.EDGE));
        }
        if (clip.endFrame() > end) {
            clips.add(clip.from(end, Fade.EDGE_FRAMES).withId(ids.take()));
        }
        return clips;
    }
}

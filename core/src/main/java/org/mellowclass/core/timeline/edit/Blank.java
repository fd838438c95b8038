package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.core.treatment.Trick;

/**
 * Puts the take's own room in place of a span on the chosen tracks, without moving anything; true silence for takes whose
 * room is not known. Every new edge gets a fade of 5 ms; sound and room meet as in {@link Remove}. Where two clips lie over each other, their rooms are crossfaded with
 * equal power, so that nowhere the room is heard twice.
 */
public record Blank(Span span, Set<Long> trackIds) implements SpanEdit {

    private static final Fade MEETING = Fade.EDGE.meeting(Fade.Seam.EQUAL_POWER);

    public Blank {
        trackIds = Set.copyOf(trackIds);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        OnSpan.check(timeline, span, trackIds);
        OnSpan.Ids ids = new OnSpan.Ids(timeline);
        return Edited.inPlace(OnSpan.changed(timeline, ids, timeline.tracks().stream()
                .map(track -> trackIds.contains(track.id()) ? blanked(track, takes, ids) : track).toList()));
    }

    @Override
    public Blank on(Span otherSpan, Set<Long> otherTracks) {
        return new Blank(otherSpan, otherTracks);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return OnSpan.footprint(timeline, span, trackIds);
    }

    private Track blanked(Track track, TakeFacts takes, OnSpan.Ids ids) {
        List<Clip> clips = new ArrayList<>();
        List<Clip> rooms = new ArrayList<>();
        for (Clip clip : track.clips()) {
            if (!clip.overlaps(span)) {
                clips.add(clip);
                continue;
            }
            long start = Math.max(span.startFrame(), clip.startFrame());
            long end = Math.min(span.endFrame(), clip.endFrame());
            if (clip.startFrame() < start) {
                clips.add(Cut.end(clip, start));
            }
            room(clip.source(), takes).ifPresent(room ->
                    addRoom(rooms, new Clip(ids.take(), room, start, Fade.EDGE_FRAMES, end - start, clip.gainDb(), MEETING, MEETING)));
            if (clip.endFrame() > end) {
                clips.add(Cut.start(clip, end).withId(ids.take()));
            }
        }
        clips.addAll(rooms);
        return track.withClips(clips);
    }

    /** The room of what a source plays; empty if it is not known, or too short to be repeated. */
    static Optional<RoomSource> room(Source source, TakeFacts takes) {
        // what rings in a trick is no room
        Treatment treatment = source.treatment().without(Trick.class);
        return takes.room(source.takeId()).filter(room -> room.frames() >= 2 * RoomSource.BLEND_FRAMES)
                .map(room -> new RoomSource(source.takeId(), treatment, treatment.fromTake(room.startFrame()), room.frames()));
    }

    /** Adds a room behind others; they come in the order of their starts. */
    private static void addRoom(List<Clip> rooms, Clip room) {
        Clip last = rooms.isEmpty() ? null : rooms.get(rooms.size() - 1);
        if (last == null || last.endFrame() <= room.startFrame()) {
            rooms.add(room);
        } else if (room.endFrame() <= last.endFrame()) {
            return;
        } else if (last.endFrame() - room.startFrame() < Fade.EDGE_FRAMES || room.startFrame() - last.startFrame() < last.fadeIn().reach()
                || room.endFrame() - last.endFrame() < Fade.EDGE_FRAMES) {
            // too little of either for a crossfade: the first one plays to its end
            rooms.add(room.from(last.endFrame(), Fade.EDGE_FRAMES));
        } else {
            Fade fade = Fade.of(last.endFrame() - room.startFrame(), Fade.Shape.EQUAL_POWER);
            rooms.set(rooms.size() - 1, last.withFades(last.fadeIn(), fade));
            rooms.add(room.withFades(fade, room.fadeOut()));
        }
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Fills what is free of a span on the chosen tracks with room tone, of the take that is heard last before it or, where none is, first
 * after it, at that clip's gain. Nothing moves, and no sound changes.
 */
public record Fill(Span span, Set<Long> trackIds) implements SpanEdit {

    public Fill {
        trackIds = Set.copyOf(trackIds);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        OnSpan.checkTracks(timeline, trackIds);
        OnSpan.Ids ids = new OnSpan.Ids(timeline);
        return Edited.inPlace(OnSpan.changed(timeline, ids, timeline.tracks().stream()
                .map(track -> trackIds.contains(track.id()) ? filled(track, takes, ids) : track).toList()));
    }

    private Track filled(Track track, TakeFacts takes, OnSpan.Ids ids) {
        List<Clip> clips = new ArrayList<>(track.clips());
        for (Span free : free(track)) {
            nearest(track, free).flatMap(clip -> Blank.room(clip.source(), takes).map(room ->
                    new Clip(ids.take(), room, free.startFrame(), 0, free.frames(), clip.gainDb(), Fade.EDGE, Fade.EDGE))).ifPresent(clips::add);
        }
        return clips.size() == track.clips().size() ? track : track.withClips(clips);
    }

    private List<Span> free(Track track) {
        List<Span> free = new ArrayList<>();
        long from = span.startFrame();
        for (Clip clip : track.clips()) {
            if (clip.startFrame() > from && from < span.endFrame()) {
                free.add(new Span(from, Math.min(clip.startFrame(), span.endFrame())));
            }
            from = Math.max(from, clip.endFrame());
        }
        if (from < span.endFrame()) {
            free.add(new Span(from, span.endFrame()));
        }
        return free;
    }

    private static Optional<Clip> nearest(Track track, Span free) {
        Optional<Clip> before = track.clips().stream().filter(clip -> clip.endFrame() <= free.startFrame()).reduce((one, next) -> next);
        return before.isPresent() ? before : track.clips().stream().filter(clip -> clip.startFrame() >= free.endFrame()).findFirst();
    }

    @Override
    public Fill on(Span otherSpan, Set<Long> otherTracks) {
        return new Fill(otherSpan, otherTracks);
    }

    /** The span with the clips whose rooms it takes. */
    private Span reached(Timeline timeline, long trackId) {
        long start = span.startFrame();
        long end = span.endFrame();
        Track track = timeline.track(trackId).orElse(null);
        for (Span free : track == null ? List.<Span>of() : free(track)) {
            Optional<Clip> clip = nearest(track, free);
            start = Math.min(start, clip.map(Clip::startFrame).orElse(start));
            end = Math.max(end, clip.map(Clip::endFrame).orElse(end));
        }
        return new Span(start, end);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return trackIds.stream().map(id -> Footprint.ofStretch(id, reached(timeline, id))).reduce(Footprint.NOTHING, Footprint::and);
    }

    /** What is around the gap must be as it was: it says what the gap is filled with. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        OnSpan.checkTracks(meanwhile.base(), trackIds);
        OnSpan.Parts parts = new OnSpan.Parts();
        for (long trackId : trackIds) {
            meanwhile.requireSame(trackId, reached(meanwhile.base(), trackId), Set.of());
            if (meanwhile.head().track(trackId).isPresent()) {
                parts.add(trackId, meanwhile.kept(meanwhile.map(trackId), span));
            }
        }
        return parts.of(this);
    }
}

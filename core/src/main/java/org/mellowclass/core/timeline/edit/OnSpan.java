package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;

/** What edits of a span on chosen tracks share: their checks, their footprint, and going through the clips they meet. */
final class OnSpan {

    private OnSpan() {
    }

    /** Makes new clips from one that the span meets, with new ids from a counter where it makes more than one. */
    @FunctionalInterface
    interface Change {
        List<Clip> of(Clip clip, Ids ids);
    }

    static final class Ids {
        private long next;

        Ids(Timeline timeline) {
            next = timeline.nextId();
        }

        long take() {
            return next++;
        }

        long next() {
            return next;
        }
    }

    static void check(Timeline timeline, Span span, Set<Long> trackIds) {
        checkTracks(timeline, trackIds);
        if (span.startFrame() >= timeline.endFrame()) {
            throw new EditRefused(EditRefused.Reason.SPAN_BEYOND_THE_END);
        }
    }

    static void checkTracks(Timeline timeline, Set<Long> trackIds) {
        if (trackIds.isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NO_TRACK_CHOSEN);
        }
        if (!timeline.trackIds().containsAll(trackIds)) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_TRACK);
        }
    }

    /** The timeline with the clips that the span meets on the chosen tracks changed, all others as they were. */
    static Timeline change(Timeline timeline, Span span, Set<Long> trackIds, Change change) {
        check(timeline, span, trackIds);
        Ids ids = new Ids(timeline);
        Timeline changed = timeline.mapTracks(track -> {
            if (!trackIds.contains(track.id())) {
                return track;
            }
            List<Clip> clips = new ArrayList<>();
            for (Clip clip : track.clips()) {
                if (clip.overlaps(span)) {
                    clips.addAll(change.of(clip, ids));
                } else {
                    clips.add(clip);
                }
            }
            return track.withClips(clips);
        }, ids.next());
        if (changed.tracks().equals(timeline.tracks())) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        return new Timeline(changed.tracks(), changed.flags(), ids.next());
    }

    /** The clips that the span meets on the chosen tracks. */
    static Footprint footprint(Timeline timeline, Span span, Set<Long> trackIds) {
        return Footprint.ofClips(timeline.tracks().stream().filter(track -> trackIds.contains(track.id()))
                .flatMap(track -> track.clips().stream()).filter(clip -> clip.overlaps(span)).map(Clip::id)
                .collect(Collectors.toSet()));
    }

    static Span shifted(Span span, long frames) {
        return new Span(span.startFrame() + frames, span.endFrame() + frames);
    }
}

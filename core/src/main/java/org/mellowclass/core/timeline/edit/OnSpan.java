package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

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
        return changed(timeline, ids, timeline.tracks().stream().map(track -> {
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
        }).toList());
    }

    static Timeline changed(Timeline timeline, Ids ids, List<Track> tracks) {
        if (tracks.equals(timeline.tracks())) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        return new Timeline(tracks, timeline.flags(), ids.next());
    }

    /** The stretches of a track within a span on which there are clips. */
    static List<Span> sounding(Timeline timeline, long trackId, Span span) {
        List<Span> stretches = new ArrayList<>();
        for (Clip clip : timeline.track(trackId).map(Track::clips).orElse(List.of())) {
            if (clip.overlaps(span)) {
                Span part = new Span(Math.max(clip.startFrame(), span.startFrame()), Math.min(clip.endFrame(), span.endFrame()));
                Span last = stretches.isEmpty() ? null : stretches.get(stretches.size() - 1);
                if (last != null && part.startFrame() <= last.endFrame()) {
                    stretches.set(stretches.size() - 1, new Span(last.startFrame(), Math.max(last.endFrame(), part.endFrame())));
                } else {
                    stretches.add(part);
                }
            }
        }
        return stretches;
    }

    /** The stretches with clips that the span meets on the chosen tracks. */
    static Footprint footprint(Timeline timeline, Span span, Set<Long> trackIds) {
        Set<Footprint.Stretch> stretches = new HashSet<>();
        for (long trackId : trackIds) {
            sounding(timeline, trackId, span).forEach(part -> stretches.add(new Footprint.Stretch(trackId, part)));
        }
        return Footprint.ofStretches(stretches);
    }

    /** An edit of clips that the span meets, moved with what is left of their sound; other clips that stand there now stay as they are. */
    static Optional<Edit> rebasedOnClips(SpanEdit edit, Meanwhile meanwhile) {
        checkTracks(meanwhile.base(), edit.trackIds());
        Parts parts = new Parts();
        for (long trackId : edit.trackIds()) {
            for (Span stretch : sounding(meanwhile.base(), trackId, edit.span())) {
                if (!meanwhile.soundIsGone(trackId, stretch)) {
                    meanwhile.requireSame(trackId, stretch, Set.of());
                    parts.add(trackId, meanwhile.kept(meanwhile.map(trackId), stretch));
                }
            }
        }
        return parts.of(edit);
    }

    /** Stretches of tracks that belong to one edit; those of several tracks that are the same become one. */
    static final class Parts {

        private final Map<Span, Set<Long>> tracksBySpan = new TreeMap<>(Comparator.comparingLong(Span::startFrame).thenComparingLong(Span::endFrame).reversed());

        void add(long trackId, List<Span> spans) {
            spans.forEach(span -> tracksBySpan.computeIfAbsent(span, any -> new HashSet<>()).add(trackId));
        }

        /** From the last to the first, so that none moves the others. */
        Optional<Edit> of(SpanEdit edit) {
            List<Edit> parts = tracksBySpan.entrySet().stream().map(part -> (Edit) edit.on(part.getKey(), part.getValue())).toList();
            return parts.isEmpty() ? Optional.empty() : Optional.of(parts.size() == 1 ? parts.get(0) : new Together(parts));
        }
    }
}

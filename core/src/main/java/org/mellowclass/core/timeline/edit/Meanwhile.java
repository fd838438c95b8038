package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.TimeMap;
import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * What others have done between the timeline an edit was made on and the newest one. It tells where times have gone and
 * whether what the edit touches is still the same sound, frame by frame, however clips were cut and wherever they have moved
 * along to.
 *
 * @param base the timeline that the edit was made on
 * @param head the newest one
 * @param maps where the time of tracks has gone from one to the other
 */
public record Meanwhile(Timeline base, Timeline head, TimeMaps maps, TakeFacts takes) {

    /** What can be heard of a clip in a stretch, counted from the start of the stretch. */
    private record Heard(Source source, long sourceFrame, long from, long to, double gainDb, FadePart in, FadePart out) {
    }

    /** Where a stretch lies in a fade; edges of 5 ms are no more than the seam of a cut, and do not count. */
    private record FadePart(long frames, Fade.Shape shape, long into) {

        static final FadePart NONE = new FadePart(0, Fade.Shape.GENTLE, 0);

        static FadePart of(Fade fade, long fromEdge) {
            long into = fromEdge + fade.skippedFrames();
            return into >= fade.frames() ? NONE : new FadePart(fade.frames(), fade.shape(), into);
        }
    }

    private record HeardClip(Heard heard, Clip clip) {
    }

    TimeMap map(long trackId) {
        return maps.of(trackId);
    }

    /** Where the time of a track has gone that is being made: with the tied tracks if all of them have gone one way. */
    TimeMap mapOfNewTrack(int group) {
        Set<TimeMap> ways = new HashSet<>();
        base.tracks().stream().filter(track -> track.group() == group).forEach(track -> ways.add(maps.of(track.id())));
        return ways.size() == 1 ? ways.iterator().next() : TimeMap.IDENTITY;
    }

    /**
     * Where a moment of several tracks is now.
     *
     * @throws EditRefused if it is not one moment any more
     */
    long oneMoment(Set<Long> trackIds, long frame) {
        Set<Long> moments = new HashSet<>();
        trackIds.forEach(id -> moments.add(map(id).closest(frame)));
        if (moments.size() != 1) {
            throw changed(Set.of());
        }
        return moments.iterator().next();
    }

    /** Tracks that were made meanwhile and are tied to others, of which all are among the given ones. */
    Set<Long> newlyTiedTo(Set<Long> trackIds) {
        Set<Long> joined = new HashSet<>();
        for (Track track : head.tracks()) {
            Set<Long> group = new HashSet<>();
            base.tracks().stream().filter(it -> it.group() == track.group()).forEach(it -> group.add(it.id()));
            if (base.track(track.id()).isEmpty() && !group.isEmpty() && trackIds.containsAll(group)) {
                joined.add(track.id());
            }
        }
        return joined;
    }

    /** What is left of a stretch in the newest timeline. */
    List<Span> kept(TimeMap map, Span span) {
        List<Span> kept = new ArrayList<>();
        for (TimeMap.Piece piece : map.kept(span)) {
            Span now = now(piece);
            Span last = kept.isEmpty() ? null : kept.get(kept.size() - 1);
            if (last != null && last.endFrame() == now.startFrame()) {
                kept.set(kept.size() - 1, new Span(last.startFrame(), now.endFrame()));
            } else {
                kept.add(now);
            }
        }
        return kept;
    }

    private static Span now(TimeMap.Piece piece) {
        return new Span(piece.newFrame(), piece.newFrame() + piece.toFrame() - piece.fromFrame());
    }

    /**
     * @param except clips that the edit itself takes along
     * @throws EditRefused with the clips that differ, if what is left of a stretch is not what it was
     */
    void requireSame(long trackId, Span span, Set<Long> except) {
        Set<Long> differing = new HashSet<>();
        for (TimeMap.Piece piece : map(trackId).kept(span)) {
            List<HeardClip> was = heard(base, trackId, new Span(piece.fromFrame(), piece.toFrame()), except);
            List<HeardClip> is = heard(head, trackId, now(piece), except);
            missing(was, is).forEach(it -> differing.add(it.clip.id()));
            missing(is, was).forEach(it -> differing.add(it.clip.id()));
        }
        if (!differing.isEmpty()) {
            throw changed(differing);
        }
    }

    /** Whether nothing of the takes that were heard in a stretch is heard there any more. */
    boolean soundIsGone(long trackId, Span span) {
        for (TimeMap.Piece piece : map(trackId).kept(span)) {
            List<HeardClip> is = heard(head, trackId, now(piece), Set.of());
            for (HeardClip was : heard(base, trackId, new Span(piece.fromFrame(), piece.toFrame()), Set.of())) {
                if (!(was.heard.source instanceof TakeSource) || is.stream().anyMatch(now -> inStep(was.heard, now.heard))) {
                    return false;
                }
            }
        }
        return true;
    }

    private static boolean inStep(Heard one, Heard other) {
        return one.source.equals(other.source) && one.sourceFrame - one.from == other.sourceFrame - other.from;
    }

    /**
     * A clip of the base as it is now, moved along with its track and otherwise the same; empty if its sound is gone.
     *
     * @throws EditRefused with the clip, if it differs
     */
    Optional<Clip> same(long clipId) {
        Clip was = base.clip(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Track track = base.trackOf(clipId).orElseThrow();
        List<Span> kept = kept(map(track.id()), was.span());
        Optional<Clip> now = head.track(track.id()).flatMap(it -> it.clip(clipId));
        if (now.isPresent() && kept.size() == 1 && kept.get(0).frames() == was.frames()) {
            Clip moved = was.movedBy(kept.get(0).startFrame() - was.startFrame());
            if (moved.source().sameSound(now.get().source()) && moved.equals(now.get().withSource(moved.source()))) {
                return now;
            }
        }
        if (head.clip(clipId).isEmpty() && soundIsGone(track.id(), was.span())) {
            return Optional.empty();
        }
        throw changed(Set.of(clipId));
    }

    /** Clips that an edit takes away must be there as they were, all of them. */
    void requireThere(Set<Long> clipIds) {
        clipIds.forEach(id -> same(id).orElseThrow(() -> changed(Set.of(id))));
    }

    /** What an edit makes different of the base must be the same in the newest timeline, but for clips that it takes along. */
    void requireSameWhereDifferent(Timeline after, Set<Long> except) {
        Footprint.between(base, after).stretches().forEach(stretch -> requireSame(stretch.trackId(), stretch.span(), except));
    }

    private static List<HeardClip> missing(List<HeardClip> of, List<HeardClip> in) {
        List<Heard> there = new ArrayList<>(in.stream().map(HeardClip::heard).toList());
        return of.stream().filter(it -> !there.remove(it.heard)).toList();
    }

    private static List<HeardClip> heard(Timeline timeline, long trackId, Span span, Set<Long> except) {
        List<HeardClip> heard = new ArrayList<>();
        for (Clip clip : timeline.track(trackId).map(Track::clips).orElse(List.of())) {
            if (!clip.overlaps(span) || except.contains(clip.id())) {
                continue;
            }
            HeardClip next = heard(clip, span);
            HeardClip split = heard.stream().filter(before -> continues(before, next)).findFirst().orElse(null);
            if (split == null) {
                heard.add(next);
            } else {
                Heard first = split.heard;
                heard.set(heard.indexOf(split), new HeardClip(new Heard(first.source, first.sourceFrame, first.from, next.heard.to, first.gainDb,
                        first.in, next.heard.out), clip));
            }
        }
        return heard;
    }

    /** Whether two clips were one before a split, which changes nothing that can be heard. */
    private static boolean continues(HeardClip before, HeardClip next) {
        return before.heard.to == next.heard.from && before.heard.gainDb == next.heard.gainDb && inStep(before.heard, next.heard)
                && before.clip.fadeOut().reach() == 0 && next.clip.fadeIn().reach() == 0;
    }

    private static HeardClip heard(Clip clip, Span span) {
        long from = Math.max(clip.startFrame(), span.startFrame());
        long to = Math.min(clip.endFrame(), span.endFrame());
        Source source = clip.source().treated(clip.source().treatment().timeAlone());
        return new HeardClip(new Heard(source, clip.sourceFrame() + from - clip.startFrame(), from - span.startFrame(), to - span.startFrame(),
                clip.gainDb(), FadePart.of(clip.fadeIn(), from - clip.startFrame()), FadePart.of(clip.fadeOut(), clip.endFrame() - to)), clip);
    }

    static EditRefused changed(Set<Long> clipIds) {
        return new EditRefused(EditRefused.Reason.CHANGED_MEANWHILE, clipIds);
    }
}

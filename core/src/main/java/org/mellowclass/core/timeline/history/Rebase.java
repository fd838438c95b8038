package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;

/**
 * Takes an edit that was made on an older timeline over to the newest one, so that two people can work at once. If every
 * clip it touches on a track is the same in both but for one common shift, the edit goes along with that shift; space without
 * clips goes along with its neighbours. So edits with disjoint footprints both apply.
 */
public final class Rebase {

    private final Timeline base;
    private final Timeline head;

    private Rebase(Timeline base, Timeline head) {
        this.base = base;
        this.head = head;
    }

    /**
     * The edit as it applies to {@code head}.
     *
     * @param base the timeline it was made on
     * @throws EditRefused with {@link EditRefused.Reason#CHANGED_MEANWHILE} and the clips that differ
     */
    public static Edit of(Edit edit, Timeline base, Timeline head) {
        return new Rebase(base, head).rebased(edit);
    }

    private Edit rebased(Edit edit) {
        requireUntouched(edit.footprint(base));
        if (edit instanceof SpanEdit onSpan) {
            return spanEdit(onSpan);
        }
        if (edit instanceof Move move) {
            return move(move);
        }
        if (edit instanceof Trim trim) {
            return trim.shiftedBy(shift(trim.clipId()));
        }
        if (edit instanceof AddFlag flag) {
            long frame = flag.frame() + neighbourShifts(flag.trackId(), new Span(flag.frame(), flag.frame() + 1))
                    .iterator().next();
            return new AddFlag(flag.trackId(), Math.max(0, Math.min(head.endFrame(), frame)), flag.name());
        }
        return edit;
    }

    private void requireUntouched(Footprint touched) {
        Set<Long> differing = touched.clipIds().stream().filter(id -> !sameButForItsPlace(id)).collect(Collectors.toSet());
        boolean settingsDiffer = touched.trackIds().stream().anyMatch(id -> base.track(id).isEmpty()
                || head.track(id).isEmpty() || !base.track(id).get().sameSettings(head.track(id).get()));
        boolean flagsDiffer = touched.flagIds().stream().anyMatch(id -> head.flag(id).isEmpty());
        if (!differing.isEmpty() || settingsDiffer || flagsDiffer) {
            throw changedMeanwhile(differing);
        }
    }

    private boolean sameButForItsPlace(long clipId) {
        Optional<Clip> was = base.clip(clipId);
        Optional<Clip> is = head.clip(clipId);
        return was.isPresent() && is.isPresent() && is.get().equals(was.get().movedBy(shift(clipId)))
                && base.trackOf(clipId).map(Track::id).equals(head.trackOf(clipId).map(Track::id));
    }

    private long shift(long clipId) {
        return head.clip(clipId).orElseThrow().startFrame() - base.clip(clipId).orElseThrow().startFrame();
    }

    private Edit spanEdit(SpanEdit edit) {
        OnSpan.checkTracks(base, edit.trackIds());
        Map<Long, Set<Long>> tracksByShift = new TreeMap<>();
        for (long trackId : edit.trackIds()) {
            Set<Long> touched = edit.on(Set.of(trackId)).footprint(base).clipIds();
            boolean closesUp = edit instanceof Remove
                    && base.track(trackId).orElseThrow().endFrame() > edit.span().startFrame();
            if (!touched.isEmpty() || closesUp) {
                Set<Long> shifts = touched.isEmpty() ? neighbourShifts(trackId, edit.span())
                        : touched.stream().map(this::shift).collect(Collectors.toSet());
                if (!touched.isEmpty() && shifts.size() > 1) {
                    throw changedMeanwhile(touched);
                }
                long shift = fitting(trackId, edit.span(), shifts, touched);
                tracksByShift.computeIfAbsent(shift, any -> new HashSet<>()).add(trackId);
            }
        }
        List<SpanEdit> parts = new ArrayList<>();
        tracksByShift.forEach((shift, tracks) -> parts.add(edit.on(tracks).shiftedBy(shift)));
        return parts.isEmpty() ? edit : parts.size() == 1 ? parts.get(0) : new Together(parts);
    }

    private Edit move(Move move) {
        Clip clip = base.clip(move.clipId()).orElseThrow();
        Span wanted = clip.movedBy(Math.max(0, move.startFrame()) - clip.startFrame()).span();
        Set<Long> touched = new HashSet<>(move.footprint(base).clipIds());
        Set<Long> met = met(base, move.trackId(), wanted);
        met.remove(clip.id());
        Set<Long> shifts = met.isEmpty() ? neighbourShifts(move.trackId(), wanted)
                : met.stream().map(this::shift).collect(Collectors.toSet());
        return move.shiftedBy(fitting(move.trackId(), wanted, shifts, touched));
    }

    /** The first of some shifts at which a span of a track meets no other clips than those. */
    private long fitting(long trackId, Span span, Set<Long> shifts, Set<Long> touched) {
        Set<Long> inTheWay = new HashSet<>();
        for (long shift : shifts) {
            if (span.startFrame() + shift < 0) {
                continue;
            }
            Set<Long> met = met(head, trackId, OnSpan.shifted(span, shift));
            met.removeAll(touched);
            if (met.isEmpty()) {
                return shift;
            }
            inTheWay.addAll(met);
        }
        throw changedMeanwhile(inTheWay);
    }

    private static Set<Long> met(Timeline timeline, long trackId, Span span) {
        return timeline.track(trackId).stream().flatMap(track -> track.clips().stream())
                .filter(clip -> clip.overlaps(span)).map(Clip::id).collect(Collectors.toCollection(HashSet::new));
    }

    /** How far the clips on a span, behind it and before it have gone, the nearest first; 0 where there are none. */
    private Set<Long> neighbourShifts(long trackId, Span span) {
        Set<Long> shifts = new LinkedHashSet<>();
        List<Clip> still = base.track(trackId).stream().flatMap(track -> track.clips().stream())
                .filter(clip -> head.track(trackId).flatMap(track -> track.clip(clip.id())).isPresent()).toList();
        still.stream().filter(clip -> clip.overlaps(span)).findFirst().ifPresent(clip -> shifts.add(shift(clip.id())));
        still.stream().filter(clip -> clip.startFrame() >= span.endFrame()).findFirst()
                .ifPresent(clip -> shifts.add(shift(clip.id())));
        still.stream().filter(clip -> clip.endFrame() <= span.startFrame()).reduce((earlier, later) -> later)
                .ifPresent(clip -> shifts.add(shift(clip.id())));
        shifts.add(0L);
        return shifts;
    }

    private static EditRefused changedMeanwhile(Set<Long> clipIds) {
        return new EditRefused(EditRefused.Reason.CHANGED_MEANWHILE, clipIds);
    }
}

package org.mellowclass.core.review;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeSet;
import java.util.function.LongPredicate;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Where what is said in a timeline was said in an earlier one, however it is cut, moved, treated or balanced now: so that somebody can go over
 * from the one to the other in the middle of a word. Where several tracks sound, those in which somebody speaks lead, the uppermost of them.
 */
public final class SameWords {

    private SameWords() {
    }

    /**
     * A stretch of the later timeline whose words were said in the earlier one.
     *
     * @param wasFrame where they begin there; as long as they are now
     */
    public record Stretch(Span is, long wasFrame) {
    }

    /** A clip that plays frames of a take one by one. @param takeFrame what of the take its start plays */
    private record Said(long takeId, long takeFrame, Span span) {
    }

    /** In the order of the later timeline; what was not there before, and what is faster or slower now, is in none. @param speaks whether somebody speaks in a take */
    public static List<Stretch> of(Timeline was, Timeline is, LongPredicate speaks) {
        List<Said> before = said(was, speaks);
        List<Said> now = said(is, speaks);
        TreeSet<Long> edges = new TreeSet<>();
        now.forEach(one -> edges.addAll(List.of(one.span.startFrame(), one.span.endFrame())));
        List<Stretch> stretches = new ArrayList<>();
        Long start = null;
        for (long end : edges) {
            if (start != null) {
                Span span = new Span(start, end);
                now.stream().filter(one -> one.span.contains(span.startFrame())).findFirst().ifPresent(leading -> find(leading, span, before, stretches));
            }
            start = end;
        }
        return stretches;
    }

    /** Of tracks that are heard: the speaking ones first, each from above. */
    private static List<Said> said(Timeline timeline, LongPredicate speaks) {
        List<Said> said = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.muted() ? List.<Clip>of() : track.clips()) {
                if (clip.source() instanceof TakeSource take) {
                    long from = take.treatment().toTake(clip.sourceFrame());
                    if (take.treatment().toTake(clip.sourceFrame() + clip.frames()) - from == clip.frames()) {
                        said.add(new Said(take.takeId(), from, clip.span()));
                    }
                }
            }
        }
        said.sort(Comparator.comparing(one -> !speaks.test(one.takeId)));
        return said;
    }

    /** Of copies the one that goes on where the stretch in front of it ended is preferred. */
    private static void find(Said leading, Span span, List<Said> before, List<Stretch> stretches) {
        Stretch last = stretches.isEmpty() ? null : stretches.get(stretches.size() - 1);
        long lately = last == null ? 0 : last.is.startFrame() - last.wasFrame;
        List<Said> copies = before.stream().filter(one -> one.takeId == leading.takeId).sorted(Comparator.comparingLong(one -> Math.abs(shift(leading, one) - lately))).toList();
        List<Span> left = List.of(span);
        List<Stretch> found = new ArrayList<>();
        for (Said copy : copies) {
            long shift = shift(leading, copy);
            long from = Math.max(0, copy.span.startFrame() + shift);
            for (Span there : copy.span.endFrame() + shift <= from ? List.<Span>of() : Span.within(left, List.of(new Span(from, copy.span.endFrame() + shift)))) {
                found.add(new Stretch(there, there.startFrame() - shift));
            }
            left = Span.without(left, found.stream().map(Stretch::is).toList());
        }
        found.sort(Comparator.comparingLong(stretch -> stretch.is.startFrame()));
        stretches.addAll(found);
    }

    /** How much later the same frame of a take stands now. */
    private static long shift(Said is, Said was) {
        return is.span.startFrame() - is.takeFrame - (was.span.startFrame() - was.takeFrame);
    }
}

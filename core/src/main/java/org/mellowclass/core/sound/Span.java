package org.mellowclass.core.sound;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;

/**
 * A stretch of time from {@code startFrame} (included) to {@code endFrame} (left out), in frames.
 *
 * @throws IllegalArgumentException if it starts before zero or is not at least one frame long
 */
public record Span(long startFrame, long endFrame) {

    public Span {
        if (startFrame < 0 || endFrame <= startFrame) {
            throw new IllegalArgumentException("not a span: " + startFrame + " to " + endFrame);
        }
    }

    /**
     * Spans in order, with what overlaps, adjoins or lies close together as one.
     *
     * @param apart how many frames may lie between two that become one; 0 for those that touch
     */
    public static List<Span> joined(Collection<Span> spans, long apart) {
        List<Span> joined = new ArrayList<>();
        for (Span span : spans.stream().sorted(Comparator.comparingLong(Span::startFrame)).toList()) {
            Span last = joined.isEmpty() ? null : joined.get(joined.size() - 1);
            if (last != null && span.startFrame - last.endFrame <= apart) {
                joined.set(joined.size() - 1, new Span(last.startFrame, Math.max(last.endFrame, span.endFrame)));
            } else {
                joined.add(span);
            }
        }
        return joined;
    }

    /** What of some spans is in none of others; in order. */
    public static List<Span> without(Collection<Span> spans, Collection<Span> others) {
        List<Span> left = new ArrayList<>();
        List<Span> gone = joined(others, 0);
        int next = 0;
        for (Span span : joined(spans, 0)) {
            long from = span.startFrame;
            while (next < gone.size() && gone.get(next).endFrame <= from) {
                next++;
            }
            for (int i = next; i < gone.size() && gone.get(i).startFrame < span.endFrame; i++) {
                if (gone.get(i).startFrame > from) {
                    left.add(new Span(from, gone.get(i).startFrame));
                }
                from = gone.get(i).endFrame;
            }
            if (from < span.endFrame) {
                left.add(new Span(from, span.endFrame));
            }
        }
        return left;
    }

    /** What of some spans is in others as well; in order. */
    public static List<Span> within(Collection<Span> spans, Collection<Span> others) {
        return without(spans, without(spans, others));
    }

    /** How many frames spans have together, each once. */
    public static long total(Collection<Span> spans) {
        return joined(spans, 0).stream().mapToLong(Span::frames).sum();
    }

    public long frames() {
        return endFrame - startFrame;
    }

    public boolean contains(long frame) {
        return frame >= startFrame && frame < endFrame;
    }
}

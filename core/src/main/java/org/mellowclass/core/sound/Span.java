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

    public long frames() {
        return endFrame - startFrame;
    }

    public boolean contains(long frame) {
        return frame >= startFrame && frame < endFrame;
    }
}

package org.mellowclass.core.sound;

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

    public long frames() {
        return endFrame - startFrame;
    }

    public boolean contains(long frame) {
        return frame >= startFrame && frame < endFrame;
    }
}

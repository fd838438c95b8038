package org.mellowclass.core.timeline;

/**
 * A fade inside the start or the end of a clip, counted in frames from that edge.
 *
 * @param frames        how long the whole fade is, 0 for none
 * @param skippedFrames how much of its silent end was cut off with the clip's old edge
 * @param edgeFrames    a short gentle fade on top, so that an edge that a cut has made never clicks
 */
public record Fade(long frames, Shape shape, long skippedFrames, long edgeFrames) {

    /** How the gain grows from 0 to 1. */
    public enum Shape {
        /** A raised cosine: two of them, in opposite directions, sum to 1 everywhere. */
        GENTLE {
            @Override
            double at(double x) {
                return 0.5 - 0.5 * Math.cos(Math.PI * x);
            }
        },
        /** A quarter sine: the squares of two of them, in opposite directions, sum to 1 everywhere. */
        EQUAL_POWER {
            @Override
            double at(double x) {
                return Math.sin(0.5 * Math.PI * x);
            }
        };

        abstract double at(double x);
    }

    /** How long the fade is that every new edge gets: 5 ms. */
    public static final long EDGE_FRAMES = 240;

    public static final Fade NONE = new Fade(0, Shape.GENTLE, 0, 0);

    /** What a new edge gets. */
    public static final Fade EDGE = new Fade(0, Shape.GENTLE, 0, EDGE_FRAMES);

    public Fade {
        if (frames < 0 || skippedFrames < 0 || skippedFrames > frames || edgeFrames < 0) {
            throw new IllegalArgumentException("not a fade: " + frames + ", " + skippedFrames + ", " + edgeFrames);
        }
    }

    public static Fade of(long frames, Shape shape) {
        return new Fade(frames, shape, 0, 0);
    }

    /** How far it reaches into the clip. */
    public long reach() {
        return Math.max(frames - skippedFrames, edgeFrames);
    }

    /** The gain so many frames from the edge, counted from 0. */
    public double gainAt(long frame) {
        long into = frame + skippedFrames;
        double gain = into >= frames ? 1 : shape.at((into + 0.5) / frames);
        return frame >= edgeFrames ? gain : gain * Shape.GENTLE.at((frame + 0.5) / edgeFrames);
    }

    /** What is left of it behind a new edge, so many frames further inside, which gets a short fade of its own. */
    Fade cut(long gone, long newEdgeFrames) {
        long skipped = skippedFrames + gone;
        return gone < 0 || skipped >= frames ? new Fade(0, Shape.GENTLE, 0, newEdgeFrames)
                : new Fade(frames, shape, skipped, newEdgeFrames);
    }
}

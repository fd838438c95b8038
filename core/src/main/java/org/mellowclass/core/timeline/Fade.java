package org.mellowclass.core.timeline;

/**
 * A fade inside the start or the end of a clip, counted in frames from that edge.
 *
 * @param frames        how long the whole fade is, 0 for none
 * @param skippedFrames how much of its silent end was cut off with the clip's old edge
 * @param edgeFrames    a short fade on top, so that an edge that a cut has made never clicks
 * @param seam          where that short fade lies
 */
public record Fade(long frames, Shape shape, long skippedFrames, long edgeFrames, Seam seam) {

    /** How the short fade at an edge meets what stands beside it. */
    public enum Seam {
        /** It lies inside the clip, which begins or ends there. */
        INSIDE(Shape.GENTLE),
        /** It reaches as far over the edge as inside it, and with its neighbour's sums to 1: both play one take in step. */
        EQUAL_GAIN(Shape.GENTLE),
        /** As before, but their squares sum to 1: the two are different sounds. */
        EQUAL_POWER(Shape.EQUAL_POWER);

        private final Shape shape;

        Seam(Shape shape) {
            this.shape = shape;
        }
    }

    /** How the gain grows from 0 to 1. */
    public enum Shape {
        /** In proportion to time. */
        STRAIGHT {
            @Override
            double at(double x) {
                return x;
            }
        },
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
        },
        /** By the square of time: long quiet, then quickly loud. */
        SLOW_START {
            @Override
            double at(double x) {
                return x * x;
            }
        },
        /** The other way round: quickly loud, then slowly the rest. */
        SLOW_END {
            @Override
            double at(double x) {
                return 1 - (1 - x) * (1 - x);
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
        if (frames < 0 || skippedFrames < 0 || skippedFrames > frames || edgeFrames < 0 || edgeFrames == 0 && seam != Seam.INSIDE) {
            throw new IllegalArgumentException("not a fade: " + frames + ", " + skippedFrames + ", " + edgeFrames + ", " + seam);
        }
    }

    public Fade(long frames, Shape shape, long skippedFrames, long edgeFrames) {
        this(frames, shape, skippedFrames, edgeFrames, Seam.INSIDE);
    }

    public static Fade of(long frames, Shape shape) {
        return new Fade(frames, shape, 0, 0);
    }

    /** How far it reaches into the clip. */
    public long reach() {
        return Math.max(frames - skippedFrames, edgeFrames);
    }

    /** How far beyond the edge the clip goes on sounding under this fade. */
    public long overFrames() {
        return seam == Seam.INSIDE ? 0 : edgeFrames;
    }

    /** The same with its edge meeting a neighbour; one that has no edge gets one. */
    public Fade meeting(Seam other) {
        return new Fade(frames, shape, skippedFrames, other == Seam.INSIDE ? edgeFrames : EDGE_FRAMES, other);
    }

    /** The gain so many frames from the edge, counted from 0; negative for frames over it. */
    public double gainAt(long frame) {
        long into = Math.max(0, frame + skippedFrames);
        double gain = into >= frames ? 1 : shape.at((into + 0.5) / frames);
        return frame >= edgeFrames ? gain : gain * edgeAt(frame);
    }

    private double edgeAt(long frame) {
        long over = overFrames();
        return seam.shape.at((frame + over + 0.5) / (edgeFrames + over));
    }

    // every answer looks each fade up, two for a clip: written out, since a record's own go through method handles, one for each part

    @Override
    public boolean equals(Object other) {
        return other instanceof Fade fade && frames == fade.frames && shape == fade.shape && skippedFrames == fade.skippedFrames && edgeFrames == fade.edgeFrames
                && seam == fade.seam;
    }

    @Override
    public int hashCode() {
        return Long.hashCode(frames + 31 * skippedFrames + 961 * edgeFrames) + 31 * shape.hashCode() + 961 * seam.hashCode();
    }

    /** What is left of it behind a new edge, so many frames further inside, which gets a short fade of its own. */
    Fade cut(long gone, long newEdgeFrames) {
        long skipped = skippedFrames + gone;
        return gone < 0 || skipped >= frames ? new Fade(0, Shape.GENTLE, 0, newEdgeFrames)
                : new Fade(frames, shape, skipped, newEdgeFrames);
    }
}

package org.mellowclass.core.review;

/**
 * One difference between two timelines, with its place in both, in frames at 48 kHz: where a place has no length, it is the moment at which
 * something came or went.
 *
 * @param amountDb by how much it is louder or softer; 0 for other kinds
 */
public record Change(Kind kind, long trackId, String trackName, Place was, Place is, double amountDb) {

    public enum Kind {
        TAKEN_OUT, PUT_IN, MOVED, SWAPPED, LOUDER, SOFTER, TREATED, PANNED, MUTED, HEARD_AGAIN, TRACK_ADDED, TRACK_GONE
    }

    /** From a frame to another one, which may be the same. */
    public record Place(long startFrame, long endFrame) {

        public long frames() {
            return endFrame - startFrame;
        }

        boolean meets(long start, long end) {
            return startFrame <= end && endFrame >= start;
        }

        Place and(Place other) {
            return new Place(Math.min(startFrame, other.startFrame), Math.max(endFrame, other.endFrame));
        }
    }
}

package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalLong;

import org.mellowclass.core.sound.Span;

/**
 * Where the time of a track has gone: old frames to new frames, or to gone. Monotone. It alone moves what stands at a time:
 * flags, the position, a selection, and edits that were made on an older timeline.
 *
 * @param pieces stretches that are still there, in order; what lies between them is gone
 */
public record TimeMap(List<Piece> pieces) {

    /** Behind every timeline, and far from overflowing. */
    static final long FOREVER = Long.MAX_VALUE / 4;

    /** Everything stays where it is. */
    public static final TimeMap IDENTITY = new TimeMap(List.of(new Piece(0, FOREVER, 0)));

    /** Old frames from {@code fromFrame} up to before {@code toFrame}, of which the first is at {@code newFrame} now. */
    public record Piece(long fromFrame, long toFrame, long newFrame) {

        long shift() {
            return newFrame - fromFrame;
        }
    }

    /** Neighbours that nothing lies between, before or after, are one piece; what lies behind every timeline has one end. */
    public TimeMap {
        List<Piece> joined = new ArrayList<>();
        for (Piece piece : pieces) {
            Piece last = joined.isEmpty() ? null : joined.get(joined.size() - 1);
            if (piece.fromFrame >= piece.toFrame) {
                continue;
            }
            if (last != null && last.toFrame == piece.fromFrame && last.shift() == piece.shift()) {
                joined.set(joined.size() - 1, new Piece(last.fromFrame, piece.toFrame, last.newFrame));
            } else {
                joined.add(piece);
            }
        }
        if (!joined.isEmpty() && joined.get(joined.size() - 1).toFrame > FOREVER / 2) {
            Piece last = joined.get(joined.size() - 1);
            joined.set(joined.size() - 1, new Piece(last.fromFrame, FOREVER, last.newFrame));
        }
        pieces = List.copyOf(joined);
    }

    public static TimeMap removing(Span span) {
        return new TimeMap(List.of(new Piece(0, span.startFrame(), 0), new Piece(span.endFrame(), FOREVER, span.startFrame())));
    }

    /** What stood at a frame or behind it stands so many frames later. */
    public static TimeMap opening(long atFrame, long frames) {
        return new TimeMap(List.of(new Piece(0, atFrame, 0), new Piece(atFrame, FOREVER, atFrame + frames)));
    }

    /** Where an old frame is now; empty if it is gone. */
    public OptionalLong map(long frame) {
        for (Piece piece : pieces) {
            if (frame >= piece.fromFrame && frame < piece.toFrame) {
                return OptionalLong.of(frame + piece.shift());
            }
        }
        return OptionalLong.empty();
    }

    /** Where an old position is now; one that is gone moves to where the gap has closed. */
    public long closest(long frame) {
        for (Piece piece : pieces) {
            if (frame < piece.toFrame) {
                return Math.max(frame, piece.fromFrame) + piece.shift();
            }
        }
        return 0;
    }

    /** What is left of an old span, as stretches of old frames with the places of their first frames now. */
    public List<Piece> kept(Span span) {
        List<Piece> kept = new ArrayList<>();
        for (Piece piece : pieces) {
            long from = Math.max(piece.fromFrame, span.startFrame());
            long to = Math.min(piece.toFrame, span.endFrame());
            if (from < to) {
                kept.add(new Piece(from, to, from + piece.shift()));
            }
        }
        return kept;
    }

    /** This, and then another one. */
    public TimeMap then(TimeMap later) {
        List<Piece> both = new ArrayList<>();
        for (Piece piece : pieces) {
            for (Piece left : later.kept(new Span(piece.newFrame, piece.toFrame + piece.shift()))) {
                both.add(new Piece(left.fromFrame - piece.shift(), left.toFrame - piece.shift(), left.newFrame));
            }
        }
        return new TimeMap(both);
    }

    /** From the new frames back to the old ones. */
    public TimeMap inverse() {
        return new TimeMap(pieces.stream().map(piece -> new Piece(piece.newFrame, piece.toFrame + piece.shift(), piece.fromFrame)).toList());
    }
}

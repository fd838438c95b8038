package org.mellowclass.core.timeline.history;

import java.util.OptionalLong;

/**
 * One revision in an episode's history, which only grows: undo and redo append revisions that carry an earlier value, so
 * nothing is ever lost and both work without end.
 *
 * @param seq    its number in the episode
 * @param undoTo the revision whose value undo brings back; 0 if there is none
 * @param redoTo the revision whose value redo brings back; 0 if there is none
 */
public record HistoryPoint(long seq, long undoTo, long redoTo) {

    /** The first revision of an episode, with nothing before it. */
    public static HistoryPoint first() {
        return new HistoryPoint(1, 0, 0);
    }

    /** The revision that an edit makes; what could be redone cannot be any more. */
    public HistoryPoint afterEdit() {
        return new HistoryPoint(seq + 1, seq, 0);
    }

    /** Which revision's value undo brings back. */
    public OptionalLong undoTarget() {
        return undoTo == 0 ? OptionalLong.empty() : OptionalLong.of(undoTo);
    }

    /** Which revision's value redo brings back. */
    public OptionalLong redoTarget() {
        return redoTo == 0 ? OptionalLong.empty() : OptionalLong.of(redoTo);
    }

    /** The revision that undo makes; {@code target} is the one at {@link #undoTarget()}. */
    public HistoryPoint afterUndo(HistoryPoint target) {
        return new HistoryPoint(seq + 1, target.undoTo, seq);
    }

    /** The revision that redo makes; {@code target} is the one at {@link #redoTarget()}. */
    public HistoryPoint afterRedo(HistoryPoint target) {
        return new HistoryPoint(seq + 1, target.undoTo, target.redoTo);
    }
}

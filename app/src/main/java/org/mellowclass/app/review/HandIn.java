package org.mellowclass.app.review;

import java.time.Instant;

/**
 * A frozen, numbered version of an episode. A decision is about exactly this one.
 *
 * @param newFrames     how much of it sounds otherwise than in the one before; null for the first, and for those of before this was kept
 * @param unheardReason why it may go on air though not all of it was heard; null as long as nobody has said so
 * @param report the sound check as JSON; null until it is ready, as are the keys
 */
public record HandIn(long id, long episodeId, int number, long revisionSeq, String timelineHash, long authorId, State state,
                     String soundKey, String skylineKey, long frames, String report, Decision decision, String sentence,
                     Long decidedBy, Instant decidedAt, Instant createdAt, Long newFrames, String unheardReason) {

    public enum State { MAKING, READY, FAILED }

    /** What the teacher says of it. */
    public enum Decision { ANOTHER_PASS, CLEARED }

    public boolean ready() {
        return state == State.READY;
    }

    public boolean cleared() {
        return decision == Decision.CLEARED;
    }
}

package org.mellowclass.app.board;

import org.mellowclass.app.feed.Publication;
import org.mellowclass.app.review.HandIn;

/** Where an episode stands. */
public enum Stage {
    MAKING(1), HANDED_IN(2), ANOTHER_PASS(2), CLEARED(3), ON_AIR(4), OFF_AIR(3);

    /** Steps of the way that are drawn as done, of four. */
    private final int steps;

    Stage(int steps) {
        this.steps = steps;
    }

    public int steps() {
        return steps;
    }

    /**
     * @param newest      the newest hand-in, or null
     * @param publication the newest publication, or null
     */
    public static Stage of(HandIn newest, Publication publication) {
        if (publication != null && publication.live()) {
            return ON_AIR;
        }
        if (newest == null) {
            return MAKING;
        }
        if (publication != null && publication.handInId() == newest.id()
                && publication.state() == Publication.State.OFF_AIR) {
            return OFF_AIR;
        }
        if (newest.decision() == null) {
            return HANDED_IN;
        }
        return newest.cleared() ? CLEARED : ANOTHER_PASS;
    }
}

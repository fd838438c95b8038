package org.mellowclass.core.cleanup;

/** A recipe cannot be made, or cannot be applied to a take. */
public final class CleanupRefused extends RuntimeException {

    private static final long serialVersionUID = 1;

    /** Why. */
    public enum Reason {
        /** A number is out of its range. */
        OUT_OF_RANGE,
        /** Something that can make sound louder stands behind the ceiling, which would then hold nothing. */
        CEILING_NOT_LAST,
        /** More steps than a recipe may have. */
        TOO_MANY_STEPS,
        /** Somebody speaks in what was chosen as room. */
        ROOM_HAS_SPEECH,
        /** What was chosen as room is too short, or not in the take. */
        ROOM_TOO_SHORT,
        /** There is no step of that name. */
        NO_SUCH_STEP,
        /** What was written is no recipe. */
        UNREADABLE
    }

    private final Reason reason;

    public CleanupRefused(Reason reason) {
        super(reason.name());
        this.reason = reason;
    }

    public Reason reason() {
        return reason;
    }
}

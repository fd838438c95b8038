package org.mellowclass.core.timeline.edit;

import java.util.Set;

/** An edit that cannot apply. The timeline is as it was. */
public final class EditRefused extends RuntimeException {

    /** Why an edit cannot apply; the words for people are the application's. */
    public enum Reason {
        NO_SUCH_TRACK, NO_TRACK_CHOSEN, SPAN_BEYOND_THE_END, NOTHING_THERE, NAME_MISSING, NO_SUCH_CLIP, NO_SUCH_FLAG,
        IN_A_FADE, TOO_SHORT, SOUND_IS_THERE, BEYOND_THE_TAKE, GAIN_OUT_OF_RANGE, TAKE_IN_PIECES, CHANGES_NOTHING,
        CHANGED_MEANWHILE, FLAG_NAMED_MEANWHILE, NO_SUCH_TAKE, NAME_TAKEN, PAN_OUT_OF_RANGE, FADE_TOO_LONG, NO_JOIN, CURVE_TOO_LONG, TOO_MUCH_TO_MEND,
        AMOUNT_OUT_OF_RANGE, TRICK_TOO_LONG
    }

    private final Reason reason;
    private final Set<Long> clipIds;

    public EditRefused(Reason reason) {
        this(reason, Set.of());
    }

    /** @param clipIds the clips that stand in the way */
    public EditRefused(Reason reason, Set<Long> clipIds) {
        super(reason.name());
        this.reason = reason;
        this.clipIds = Set.copyOf(clipIds);
    }

    public Reason reason() {
        return reason;
    }

    /** Whether there was nothing for the edit to do. */
    public boolean needless() {
        return reason == Reason.CHANGES_NOTHING || reason == Reason.NOTHING_THERE || reason == Reason.SPAN_BEYOND_THE_END;
    }

    public Set<Long> clipIds() {
        return clipIds;
    }
}

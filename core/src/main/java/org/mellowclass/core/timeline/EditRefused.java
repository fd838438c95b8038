package org.mellowclass.core.timeline;

/** An edit that cannot apply. The timeline is as it was. */
public final class EditRefused extends RuntimeException {

    /** Why an edit cannot apply; the words for people are the application's. */
    public enum Reason { NO_SUCH_TRACK, NO_TRACK_CHOSEN, SPAN_BEYOND_THE_END, NOTHING_THERE, NAME_MISSING }

    private final Reason reason;

    public EditRefused(Reason reason) {
        super(reason.name());
        this.reason = reason;
    }

    public Reason reason() {
        return reason;
    }
}

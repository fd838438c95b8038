package org.mellowclass.media;

/** A file that cannot be brought in. */
public final class SoundRefused extends Exception {

    /** Why; the words for people are the application's. */
    public enum Reason { EMPTY, NOT_SOUND, NO_AUDIO, ODD_RATE, TOO_LONG, BROKEN }

    private final Reason reason;

    public SoundRefused(Reason reason, String detail) {
        super(reason + ": " + detail);
        this.reason = reason;
    }

    public Reason reason() {
        return reason;
    }
}

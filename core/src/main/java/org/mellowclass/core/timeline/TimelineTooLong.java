package org.mellowclass.core.timeline;

/** A timeline would become longer than {@link Timeline#MOST_FRAMES}. */
public final class TimelineTooLong extends IllegalArgumentException {

    TimelineTooLong(long frame) {
        super("a timeline cannot reach frame " + frame);
    }
}

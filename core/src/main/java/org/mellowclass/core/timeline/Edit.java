package org.mellowclass.core.timeline;

/** Something a student does to a timeline. A pure function: the same timeline and edit always give the same result. */
public sealed interface Edit permits LayTake, Remove {

    /**
     * The timeline after this edit.
     *
     * @throws EditRefused if it cannot apply, or would change nothing
     */
    Timeline applyTo(Timeline timeline);
}

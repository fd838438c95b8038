package org.mellowclass.core.timeline;

/** Something a student does to a timeline. A pure function: the same timeline and edit always give the same result. */
public sealed interface Edit
        permits LayTake, LaySpan, SpanEdit, Move, Trim, SetClipGain, SetTrackGain, AddFlag, NameFlag, RemoveFlag,
        SwapTake, EraseTake, ReplaceTake, LayInStep, SetTakeGain, Together {

    /**
     * The timeline after this edit, and where it has taken time.
     *
     * @throws EditRefused if it cannot apply, or would change nothing
     */
    Edited applyTo(Timeline timeline);

    /** What this edit touches in a timeline to which it applies. */
    Footprint footprint(Timeline timeline);

    /** The same edit, so many frames later (negative: earlier). */
    Edit shiftedBy(long frames);
}

package org.mellowclass.core.timeline.edit;

import java.util.Optional;

import org.mellowclass.core.timeline.Timeline;

/** Something a student does to a timeline. A pure function: the same timeline, edit and takes always give the same result. */
public sealed interface Edit
        permits LayTake, LaySpan, LayCopy, SpanEdit, OpenUp, Move, MoveJoin, Trim, RemoveClip, SetFade, SetFades, SetClipGain, SetClipGains, TrackEdit,
        AddTrack, OrderTrack, DropTrack, DrawCurve, AddFlag, NameFlag, RemoveFlag, SwapTake, SwapPassage, PlayTrick, EraseTake, Treat, Mend, PartSides, LayInStep, SetTakeGain,
        Together {

    /**
     * The timeline after this edit, and where it has taken time.
     *
     * @throws EditRefused if it cannot apply, or would change nothing
     */
    Edited applyTo(Timeline timeline, TakeFacts takes);

    /** What this edit touches in a timeline to which it applies. */
    Footprint footprint(Timeline timeline, TakeFacts takes);

    /**
     * The same edit for the newest timeline, if it was made on an older one; empty if there is nothing left for it to do,
     * since the sound it was meant for is gone already.
     *
     * @throws EditRefused with {@link EditRefused.Reason#CHANGED_MEANWHILE} and the clips that differ, if somebody has
     *                     changed what it touches
     */
    Optional<Edit> rebased(Meanwhile meanwhile);
}

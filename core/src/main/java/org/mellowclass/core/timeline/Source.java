package org.mellowclass.core.timeline;

import org.mellowclass.core.treatment.Treatment;

/** What a clip plays: the sound of a take by a treatment, with frames of its own, counted from 0. */
public sealed interface Source permits TakeSource, RoomSource {

    /** The take that it comes from; takes never change. */
    long takeId();

    Treatment treatment();

    /** The same of the same take by another treatment. */
    Source treated(Treatment other);

    /** Whether the two play the same of one take, frame by frame, whatever is done to its sound. */
    default boolean sameSound(Source other) {
        return equals(other) || treated(treatment().timeAlone()).equals(other.treated(other.treatment().timeAlone()));
    }
}

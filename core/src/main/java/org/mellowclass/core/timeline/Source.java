package org.mellowclass.core.timeline;

/** What a clip plays: a sound with frames of its own, counted from 0. */
public sealed interface Source permits TakeSource, RoomSource {

    /** The take that it comes from; takes never change. */
    long takeId();

    /** The same of another take. */
    Source of(long otherTakeId);
}

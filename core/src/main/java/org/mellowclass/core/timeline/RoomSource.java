package org.mellowclass.core.timeline;

import org.mellowclass.core.treatment.Treatment;

/**
 * The room of a take without anybody speaking: a quiet stretch of it, repeated without end.
 *
 * @param roomFrame  where in the treated sound the quiet stretch starts
 * @param roomFrames how long it is; its end is blended into its start, so it is longer than {@link #BLEND_FRAMES} twice
 */
public record RoomSource(long takeId, Treatment treatment, long roomFrame, long roomFrames) implements Source {

    /** How long the end of the stretch is blended with its start: 50 ms. */
    public static final int BLEND_FRAMES = 2400;

    public RoomSource {
        if (roomFrame < 0 || roomFrames < 2 * BLEND_FRAMES) {
            throw new IllegalArgumentException("too little room: " + roomFrames + " frames");
        }
    }

    @Override
    public RoomSource treated(Treatment other) {
        return new RoomSource(takeId, other, other.fromTake(treatment.toTake(roomFrame)), roomFrames);
    }

    /** After so many frames the same sound comes again. */
    public long periodFrames() {
        return roomFrames - BLEND_FRAMES;
    }
}

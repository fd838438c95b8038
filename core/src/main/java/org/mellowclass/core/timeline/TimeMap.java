package org.mellowclass.core.timeline;

import java.util.OptionalLong;

import org.mellowclass.core.sound.Span;

/**
 * Where an edit has taken the time of a track: old frames to new frames, or to gone. Monotone. It alone moves what stands at
 * a time: flags and the position.
 *
 * @param goneFrom   the first frame that is gone
 * @param goneFrames how many are gone; 0 for none
 */
public record TimeMap(long goneFrom, long goneFrames) {

    /** Everything stays where it is. */
    public static final TimeMap IDENTITY = new TimeMap(0, 0);

    public static TimeMap removing(Span span) {
        return new TimeMap(span.startFrame(), span.frames());
    }

    /** Where an old frame is now; empty if it is gone. */
    public OptionalLong map(long frame) {
        if (frame < goneFrom || goneFrames == 0) {
            return OptionalLong.of(frame);
        }
        return frame < goneFrom + goneFrames ? OptionalLong.empty() : OptionalLong.of(frame - goneFrames);
    }

    /** Where an old position is now; one that is gone moves to where the gap has closed. */
    public long closest(long frame) {
        return map(frame).orElse(goneFrom);
    }
}

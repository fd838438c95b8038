package org.mellowclass.core.timeline;

import org.mellowclass.core.sound.Decibels;

/**
 * A stretch of a take laid onto a track. All times in frames at 48 kHz.
 *
 * @param id         unique in its timeline, never used again
 * @param takeId     the take it plays; takes never change
 * @param startFrame where it stands on the timeline
 * @param takeFrame  the first frame of the take that is heard
 * @param frames     how long it is
 * @param gainDb     a gain for the whole clip
 * @param fadeInFrames  length of the fade inside its start, 0 for none
 * @param fadeOutFrames length of the fade inside its end, 0 for none
 */
public record Clip(long id, long takeId, long startFrame, long takeFrame, long frames, double gainDb,
                   long fadeInFrames, long fadeOutFrames) {

    /** The fade that every new edge gets, so that a cut never clicks: 5 ms. */
    public static final long EDGE_FADE_FRAMES = 240;

    public Clip {
        if (startFrame < 0 || takeFrame < 0 || frames <= 0 || fadeInFrames < 0 || fadeOutFrames < 0) {
            throw new IllegalArgumentException("not a clip: " + startFrame + ", " + takeFrame + ", " + frames);
        }
    }

    public long endFrame() {
        return startFrame + frames;
    }

    public Clip movedBy(long offset) {
        return new Clip(id, takeId, startFrame + offset, takeFrame, frames, gainDb, fadeInFrames, fadeOutFrames);
    }

    /** What is left of this clip before a timeline frame inside it; the new edge gets a short fade. */
    Clip before(long frame) {
        return new Clip(id, takeId, startFrame, takeFrame, frame - startFrame, gainDb,
                fadeInFrames, EDGE_FADE_FRAMES);
    }

    /** What is left of this clip after a timeline frame inside it, under a new id; the new edge gets a short fade. */
    Clip after(long frame, long newId) {
        long gone = frame - startFrame;
        return new Clip(newId, takeId, frame, takeFrame + gone, frames - gone, gainDb,
                EDGE_FADE_FRAMES, fadeOutFrames);
    }

    /** The gain of the whole clip as an amplitude ratio. */
    public double gain() {
        return Decibels.toAmplitude(gainDb);
    }

    /**
     * The fades' part of the gain at one frame of the clip (0 is its first): raised cosines, both at once where a clip is
     * shorter than its two fades.
     */
    public double fadeAt(long clipFrame) {
        double gain = 1;
        if (clipFrame < fadeInFrames) {
            gain *= raisedCosine((clipFrame + 0.5) / fadeInFrames);
        }
        long left = frames - clipFrame;
        if (left <= fadeOutFrames) {
            gain *= raisedCosine((left - 0.5) / fadeOutFrames);
        }
        return gain;
    }

    private static double raisedCosine(double x) {
        return 0.5 - 0.5 * Math.cos(Math.PI * x);
    }
}

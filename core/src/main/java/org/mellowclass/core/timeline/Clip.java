package org.mellowclass.core.timeline;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Span;

/**
 * A stretch of a source laid onto a track. All times in frames at 48 kHz.
 *
 * @param id          unique in its timeline, never used again
 * @param startFrame  where it stands on the timeline
 * @param sourceFrame the first frame of the source that is heard
 * @param frames      how long it is
 * @param gainDb      a gain for the whole clip
 * @param fadeIn      inside its start
 * @param fadeOut     inside its end
 */
public record Clip(long id, Source source, long startFrame, long sourceFrame, long frames, double gainDb,
                   Fade fadeIn, Fade fadeOut) {

    public Clip {
        if (startFrame < 0 || sourceFrame < 0 || frames <= 0 || startFrame > Long.MAX_VALUE - frames || sourceFrame > Long.MAX_VALUE - frames) {
            throw new IllegalArgumentException("not a clip: " + startFrame + ", " + sourceFrame + ", " + frames);
        }
    }

    public long endFrame() {
        return startFrame + frames;
    }

    public Span span() {
        return new Span(startFrame, endFrame());
    }

    public boolean overlaps(Clip other) {
        return startFrame < other.endFrame() && other.startFrame < endFrame();
    }

    public boolean overlaps(Span span) {
        return startFrame < span.endFrame() && span.startFrame() < endFrame();
    }

    /** Whether the two play the same source in step, as neighbours that were once one clip do. */
    public boolean inStepWith(Clip other) {
        return source.equals(other.source) && sourceFrame - startFrame == other.sourceFrame - other.startFrame;
    }

    public Clip movedBy(long offset) {
        return new Clip(id, source, Math.addExact(startFrame, offset), sourceFrame, frames, gainDb, fadeIn, fadeOut);
    }

    public Clip withId(long newId) {
        return new Clip(newId, source, startFrame, sourceFrame, frames, gainDb, fadeIn, fadeOut);
    }

    public Clip withGain(double newGainDb) {
        return new Clip(id, source, startFrame, sourceFrame, frames, newGainDb, fadeIn, fadeOut);
    }

    public Clip withSource(Source newSource) {
        return new Clip(id, newSource, startFrame, sourceFrame, frames, gainDb, fadeIn, fadeOut);
    }

    public Clip withFades(Fade in, Fade out) {
        return new Clip(id, source, startFrame, sourceFrame, frames, gainDb, in, out);
    }

    /** This clip ending at a timeline frame behind its start; its new end gets a fade so long on top of what is left of its own. */
    public Clip until(long frame, long edgeFrames) {
        return new Clip(id, source, startFrame, sourceFrame, frame - startFrame, gainDb, fadeIn,
                fadeOut.cut(endFrame() - frame, edgeFrames));
    }

    /** This clip starting at a timeline frame before its end; its new start as with {@link #until}. */
    public Clip from(long frame, long edgeFrames) {
        long gone = frame - startFrame;
        return new Clip(id, source, frame, sourceFrame + gone, frames - gone, gainDb, fadeIn.cut(gone, edgeFrames), fadeOut);
    }

    /** Where it is first heard: before its start where its edge reaches over it. */
    public long firstHeard() {
        return startFrame - Math.min(fadeIn.overFrames(), sourceFrame);
    }

    /** Behind the last frame that is heard of it. */
    public long heardUntil() {
        return endFrame() + fadeOut.overFrames();
    }

    /** The gain of the whole clip as an amplitude ratio. */
    public double gain() {
        return Decibels.toAmplitude(gainDb);
    }

    /** The fades' part of the gain at one frame of the clip (0 is its first, those over its edges count on); both where it is shorter than its two fades. */
    public double fadeAt(long clipFrame) {
        return fadeIn.gainAt(clipFrame) * fadeOut.gainAt(frames - 1 - clipFrame);
    }
}

package org.mellowclass.core.measure;

/**
 * A place where sound is clipped: runs that lie within 50 ms of each other, as one. However long a sound is clipped, its
 * spots are few enough to be drawn, and none is left out.
 *
 * @param startFrame where the first run starts
 * @param endFrame   where the last run has ended
 * @param runs       how many runs it holds, of all channels
 */
public record ClippedSpot(long startFrame, long endFrame, long runs) {
}

package org.mellowclass.core.measure;

/**
 * Consecutive samples of one channel that are clipped.
 *
 * @param channel    counts from 0
 * @param startFrame the first of them, at the sound's own rate
 * @param frames     how many there are
 */
public record ClippedRun(int channel, long startFrame, int frames) {

    long endFrame() {
        return startFrame + frames;
    }
}

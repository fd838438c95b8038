package org.mellowclass.core.measure;

/** A run of clipped samples: where it starts and how many frames it lasts, at the sound's own rate. */
public record ClippedRun(long startFrame, long frames, int channel) {
}

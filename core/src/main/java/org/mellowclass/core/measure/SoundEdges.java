package org.mellowclass.core.measure;

/**
 * How a sound begins and ends.
 *
 * @param leadFrames  before the first 10 ms that are heard: those within 25 LU of the sound's loudness
 * @param trailFrames behind the last
 */
public record SoundEdges(long leadFrames, long trailFrames) {
}

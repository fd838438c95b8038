package org.mellowclass.core.soundcheck;

/**
 * What a class's episodes should sound like.
 *
 * @param loudnessLufs   integrated loudness of a stereo episode
 * @param ceilingDbtp    true peak not to pass
 * @param shortestFrames the brief's shortest length, at 48 kHz
 * @param longestFrames  the brief's longest length
 */
public record HouseSound(double loudnessLufs, double ceilingDbtp, long shortestFrames, long longestFrames) {
}

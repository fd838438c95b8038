package org.mellowclass.app.brief;

/**
 * A shelf sound that every new crew finds on its bench.
 *
 * @param excerptId the excerpt of it, or null for the whole sound
 */
public record StarterClip(long id, String trackName, long soundId, Long excerptId, long startFrame, double gainDb) {
}

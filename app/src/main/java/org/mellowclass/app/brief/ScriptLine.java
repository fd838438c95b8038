package org.mellowclass.app.brief;

/**
 * A line of the script frame.
 *
 * @param partId the part it belongs to, or null
 * @param cue    the sound that comes with it; empty if there is none
 */
public record ScriptLine(long id, Long partId, String words, String cue) {
}

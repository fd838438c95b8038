package org.mellowclass.app.brief;

/** A part of an episode that the brief asks for: cold open, interview, ending. */
public record Part(long id, String name, long shortestFrames, long longestFrames) {
}

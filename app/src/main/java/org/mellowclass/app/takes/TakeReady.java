package org.mellowclass.app.takes;

/** Told in the transaction in which a take has become ready and has landed. */
public record TakeReady(long takeId, long episodeId) {
}

package org.mellowclass.app.sounds;

/** Told in the transaction in which more is known of a take of an episode than before, or another sound of it can be heard. */
public record SoundsChanged(long episodeId) {
}

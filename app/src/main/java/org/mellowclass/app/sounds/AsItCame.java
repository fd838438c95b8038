package org.mellowclass.app.sounds;

/**
 * What is worth saying of a file that was brought in.
 *
 * @param damaged       parts of it could not be decoded, and were left out
 * @param silent        nothing is heard in it
 * @param mixedChannels how many channels were mixed to two; null where that was not needed
 */
public record AsItCame(boolean damaged, boolean silent, Integer mixedChannels) {

    public static final AsItCame WHOLE = new AsItCame(false, false, null);
}

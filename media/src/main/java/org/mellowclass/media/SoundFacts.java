package org.mellowclass.media;

/**
 * What a file says about its first stream of sound.
 *
 * @param format          the container, judged by content
 * @param sampleRate      frames a second
 * @param channels        how many
 * @param seconds         the stated length, 0 where the file states none
 */
public record SoundFacts(String format, int sampleRate, int channels, double seconds) {
}

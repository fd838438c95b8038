package org.mellowclass.media;

import java.util.Set;

/**
 * What a file says about its first stream of sound.
 *
 * @param format     the container, judged by content
 * @param codec      how the samples are coded
 * @param sampleRate frames a second
 * @param channels   how many
 * @param seconds    the stated length, 0 where the file states none
 * @param frames     how many frames were encoded, without what the coder has put before and behind them; 0 where that is not known
 * @param counted    whether the stated length is counted in samples, and not guessed from the size of the file
 */
public record SoundFacts(String format, String codec, int sampleRate, int channels, double seconds, long frames, boolean counted) {

    private static final Set<String> LOSSLESS = Set.of("flac", "alac", "wavpack", "tta", "ape", "truehd", "mlp");

    /** Whether the decoded samples are the very ones that were encoded. */
    public boolean lossless() {
        return codec.startsWith("pcm_") && !codec.equals("pcm_alaw") && !codec.equals("pcm_mulaw") || LOSSLESS.contains(codec);
    }

    /** How many frames the stated length makes, at the file's own rate; 0 where none is stated. */
    public long expectedFrames() {
        return frames > 0 ? frames : (long) (seconds * sampleRate);
    }
}

package org.mellowclass.core.sound;

import java.io.IOException;
import java.util.Arrays;

/** A stretch of a sound. Closing it closes the sound. */
public final class Stretch implements SampleSource {

    private static final int SKIP = 8192;

    private final SampleSource sound;
    private long toSkip;
    private long left;

    /** @param sound at its start */
    public Stretch(SampleSource sound, Span span) {
        this.sound = sound;
        this.toSkip = span.startFrame();
        this.left = span.frames();
    }

    @Override
    public int channels() {
        return sound.channels();
    }

    @Override
    public int sampleRate() {
        return sound.sampleRate();
    }

    @Override
    public int read(float[][] into, int offset, int frames) throws IOException {
        if (toSkip > 0) {
            float[][] skipped = new float[sound.channels()][SKIP];
            for (int read; toSkip > 0 && (read = sound.read(skipped, 0, (int) Math.min(SKIP, toSkip))) > 0; ) {
                toSkip -= read;
            }
            toSkip = 0;
        }
        int count = (int) Math.min(frames, left);
        int read = count == 0 ? 0 : sound.read(into, offset, count);
        left -= read;
        return read;
    }

    @Override
    public void close() throws IOException {
        sound.close();
    }

    /** All samples of a stretch, by channel: no longer than the sound has them. */
    public static float[][] read(SampleSource sound, Span span) throws IOException {
        float[][] samples = new float[sound.channels()][Math.toIntExact(span.frames())];
        int filled = 0;
        try (Stretch stretch = new Stretch(sound, span)) {
            for (int read; (read = stretch.read(samples, filled, samples[0].length - filled)) > 0; ) {
                filled += read;
            }
        }
        if (filled < samples[0].length) {
            for (int c = 0; c < samples.length; c++) {
                samples[c] = Arrays.copyOf(samples[c], filled);
            }
        }
        return samples;
    }
}

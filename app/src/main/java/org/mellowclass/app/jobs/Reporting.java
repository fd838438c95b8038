package org.mellowclass.app.jobs;

import java.io.IOException;
import java.time.Duration;

import org.mellowclass.core.sound.SampleSource;

/** Sound that tells a job's progress while it is read: at most once for each hundredth, and a few times a second. */
public final class Reporting implements SampleSource {

    /** Hears how many frames have been read so far. */
    @FunctionalInterface
    public interface Listener {
        void read(long frames);
    }

    private static final long LEAST_REST_NS = Duration.ofMillis(300).toNanos();

    private final SampleSource source;
    private final long step;
    private final Listener listener;
    private long frames;
    private long told;
    private long toldAt = System.nanoTime();

    /** @param expectedFrames how many frames are thought to come */
    public Reporting(SampleSource source, long expectedFrames, Listener listener) {
        this.source = source;
        this.step = Math.max(source.sampleRate(), expectedFrames / 100);
        this.listener = listener;
    }

    @Override
    public int channels() {
        return source.channels();
    }

    @Override
    public int sampleRate() {
        return source.sampleRate();
    }

    @Override
    public int read(float[][] into, int offset, int count) throws IOException {
        int read = source.read(into, offset, count);
        frames += read;
        if (frames - told >= step && System.nanoTime() - toldAt >= LEAST_REST_NS) {
            told = frames;
            toldAt = System.nanoTime();
            listener.read(frames);
        }
        return read;
    }

    @Override
    public void close() throws IOException {
        source.close();
    }
}

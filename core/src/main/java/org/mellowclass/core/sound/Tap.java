package org.mellowclass.core.sound;

import java.io.IOException;

/** Sound that is also shown to sinks while somebody reads it. */
public final class Tap implements SampleSource {

    private static final int BLOCK = 4096;

    private final SampleSource source;
    private final SampleSink[] sinks;
    private final float[][] block;

    public Tap(SampleSource source, SampleSink... sinks) {
        this.source = source;
        this.sinks = sinks.clone();
        this.block = new float[source.channels()][BLOCK];
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
    public int read(float[][] into, int offset, int frames) throws IOException {
        int read = source.read(block, 0, Math.min(frames, BLOCK));
        if (read > 0) {
            for (SampleSink sink : sinks) {
                sink.accept(block, read);
            }
            for (int c = 0; c < block.length; c++) {
                System.arraycopy(block[c], 0, into[c], offset, read);
            }
        }
        return read;
    }

    @Override
    public void close() throws IOException {
        source.close();
    }
}

package org.mellowclass.core.dsp;

import java.io.IOException;
import java.util.Arrays;

import org.mellowclass.core.sound.SampleSource;

/** A sound behind a processor, with the processor's delay taken out: as long as the sound, frame on frame. Closing it closes the sound. */
public final class Streamed implements SampleSource {

    private static final int BLOCK = 1024;

    private final SampleSource source;
    private final Processor processor;
    private final float[][] block;
    private long late;
    private int at;
    private int filled;
    private long readFrames;
    private long given;
    private boolean ended;

    public Streamed(SampleSource source, Processor processor) {
        this.source = source;
        this.processor = processor;
        this.block = new float[source.channels()][BLOCK];
        this.late = processor.latencyFrames();
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
        while (at == filled && !(ended && given == readFrames)) {
            fill();
        }
        int count = (int) Math.min(Math.min(frames, filled - at), ended ? readFrames - given : Long.MAX_VALUE);
        for (int c = 0; c < block.length; c++) {
            System.arraycopy(block[c], at, into[c], offset, count);
        }
        at += count;
        given += count;
        return count;
    }

    private void fill() throws IOException {
        int read = ended ? 0 : source.read(block, 0, BLOCK);
        readFrames += read;
        if (read == 0) {
            ended = true;
            read = BLOCK;
            for (float[] channel : block) {
                Arrays.fill(channel, 0f);
            }
        }
        processor.process(block, read);
        at = (int) Math.min(late, read);
        late -= at;
        filled = read;
    }

    @Override
    public void close() throws IOException {
        source.close();
    }
}

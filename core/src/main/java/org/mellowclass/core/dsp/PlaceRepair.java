package org.mellowclass.core.dsp;

import java.io.IOException;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;

import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/** A sound in which places that are known beforehand are repaired, with what stands around each in sight; nothing else is touched. */
abstract class PlaceRepair implements SampleSource {

    static final int BLOCK = 2048;

    /** So many frames before and behind a block are in sight. */
    final int context;
    final int window;

    private final SampleSource source;
    private final List<Span> places;
    /** {@code held[c][context]} is the next frame to hand out. */
    private final float[][] held;
    /** The same as it came: what is to be repaired is found in it. */
    private final float[][] asItCame;
    private long position;
    private int given = BLOCK;
    private int ready;
    private long inputFrames;
    private boolean ended;

    /** @param places where there is something to repair, in order, in frames of the source */
    PlaceRepair(SampleSource source, List<Span> places, int context) throws IOException {
        this.context = context;
        this.window = context + BLOCK + context;
        this.source = source;
        this.places = List.copyOf(places);
        this.held = new float[source.channels()][window];
        this.asItCame = new float[source.channels()][window];
        fill(context + BLOCK);
        position = -BLOCK;
    }

    /**
     * Adds the samples of the window that are to be repaired for a place.
     *
     * @param from    the first frame of the place that does not lie before the block
     * @param to      its end within the window
     * @param goingOn whether the place began before the block
     */
    abstract void mark(BitSet unknown, float[] channel, int c, int from, int to, boolean goingOn);

    /** Repairs the marked samples of a window. */
    abstract void repair(float[] channel, BitSet unknown);

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
        if (given == BLOCK) {
            advance();
        }
        int count = Math.min(frames, ready - given);
        for (int c = 0; c < held.length; c++) {
            System.arraycopy(held[c], context + given, into[c], offset, count);
        }
        given += count;
        return count;
    }

    @Override
    public void close() throws IOException {
        source.close();
    }

    /** Moves on by a block, and repairs what begins in it; that of the block before is repaired already. */
    private void advance() throws IOException {
        for (int c = 0; c < held.length; c++) {
            System.arraycopy(held[c], BLOCK, held[c], 0, window - BLOCK);
            System.arraycopy(asItCame[c], BLOCK, asItCame[c], 0, window - BLOCK);
        }
        fill(window - BLOCK);
        position += BLOCK;
        given = 0;
        ready = (int) Math.max(0, Math.min(BLOCK, inputFrames - position));
        for (int c = 0; c < held.length; c++) {
            BitSet unknown = marked(c);
            if (!unknown.isEmpty()) {
                repair(held[c], unknown);
            }
        }
    }

    private void fill(int from) throws IOException {
        int at = from;
        while (!ended && at < window) {
            int read = source.read(held, at, window - at);
            ended = read <= 0;
            at += Math.max(0, read);
            inputFrames += Math.max(0, read);
        }
        for (int c = 0; c < held.length; c++) {
            Arrays.fill(held[c], at, window, 0f);
            System.arraycopy(held[c], from, asItCame[c], from, window - from);
        }
    }

    private BitSet marked(int c) {
        BitSet unknown = new BitSet(window);
        long windowStart = position - context;
        for (Span place : places) {
            int from = (int) Math.max(context, place.startFrame() - windowStart);
            int to = (int) Math.min(window, place.endFrame() - windowStart);
            if (from < to && from < context + BLOCK) {
                mark(unknown, asItCame[c], c, from, to, place.startFrame() < position);
            }
        }
        return unknown;
    }
}

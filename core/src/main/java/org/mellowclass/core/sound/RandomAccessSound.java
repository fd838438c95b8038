package org.mellowclass.core.sound;

import java.io.Closeable;
import java.io.IOException;

/** Sound at {@link Frames#RATE} that can be read from any frame: a take, as the mixer sees it. */
public interface RandomAccessSound extends Closeable {

    int channels();

    long frames();

    /**
     * Reads frames {@code fromFrame …} into {@code into[channel][offset …]}; what lies outside the sound is filled with
     * silence.
     */
    void readAt(long fromFrame, float[][] into, int offset, int frames) throws IOException;

    @Override
    default void close() throws IOException {
    }
}

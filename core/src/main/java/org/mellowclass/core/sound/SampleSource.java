package org.mellowclass.core.sound;

import java.io.Closeable;
import java.io.IOException;

/** Sound that is read once, from its start to its end, in blocks. Samples are floats, full scale is −1 to 1. */
public interface SampleSource extends Closeable {

    int channels();

    /** Frames a second. */
    int sampleRate();

    /**
     * Reads up to {@code frames} frames into {@code into[channel][offset …]}.
     *
     * @return how many were read: at least one, or 0 when the sound has ended
     */
    int read(float[][] into, int offset, int frames) throws IOException;

    @Override
    default void close() throws IOException {
    }
}

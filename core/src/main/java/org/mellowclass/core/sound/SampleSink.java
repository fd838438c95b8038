package org.mellowclass.core.sound;

import java.io.IOException;
import java.io.InterruptedIOException;

/** Takes sound block by block; meters and writers are sinks, so that one pass over the sound serves them all. */
@FunctionalInterface
public interface SampleSink {

    /** Takes {@code frames} frames from {@code block[channel][0 …]}; the caller may use the arrays again afterwards. */
    void accept(float[][] block, int frames) throws IOException;

    /**
     * Reads the source to its end, hands every block to each sink in turn, and returns the number of frames.
     *
     * @throws InterruptedIOException if the thread is interrupted: work on long sound can be ended
     */
    static long drain(SampleSource source, SampleSink... sinks) throws IOException {
        float[][] block = new float[source.channels()][8192];
        long total = 0;
        for (int read; (read = source.read(block, 0, block[0].length)) > 0; total += read) {
            for (SampleSink sink : sinks) {
                sink.accept(block, read);
            }
            if (Thread.currentThread().isInterrupted()) {
                throw new InterruptedIOException("ended after " + (total + read) + " frames");
            }
        }
        return total;
    }
}

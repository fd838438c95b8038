package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

import org.mellowclass.core.sound.SampleSink;

/**
 * Finds runs of three or more consecutive samples at or beyond 0.999 of full scale. Must see the sound before any
 * resampling, which rounds flat tops off. At most {@link #MOST_RUNS} runs are kept by place; all are counted.
 */
public final class ClippingFinder implements SampleSink {

    /** Enough to mark every spot of an ordinary take; a square wave would have millions. */
    public static final int MOST_RUNS = 1000;

    private static final float FULL_SCALE = 0.999f;
    private static final int SHORTEST_RUN = 3;

    private final long[] runLength;
    private final List<ClippedRun> runs = new ArrayList<>();
    private long count;
    private long position;

    public ClippingFinder(int channels) {
        runLength = new long[channels];
    }

    @Override
    public void accept(float[][] block, int frames) {
        for (int c = 0; c < runLength.length; c++) {
            long run = runLength[c];
            for (int i = 0; i < frames; i++) {
                if (Math.abs(block[c][i]) >= FULL_SCALE) {
                    run++;
                } else if (run > 0) {
                    endRun(c, run, position + i);
                    run = 0;
                }
            }
            runLength[c] = run;
        }
        position += frames;
    }

    /** The runs in the order of their places; call once, when the sound has ended. */
    public List<ClippedRun> finish() {
        for (int c = 0; c < runLength.length; c++) {
            endRun(c, runLength[c], position);
            runLength[c] = 0;
        }
        runs.sort(Comparator.comparingLong(ClippedRun::startFrame));
        return List.copyOf(runs);
    }

    /** All runs, also those beyond {@link #MOST_RUNS}. */
    public long count() {
        return count;
    }

    private void endRun(int channel, long length, long endFrame) {
        if (length < SHORTEST_RUN) {
            return;
        }
        count++;
        if (runs.size() < MOST_RUNS) {
            runs.add(new ClippedRun(endFrame - length, length, channel));
        }
    }
}

package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

import org.mellowclass.core.sound.SampleSink;

/**
 * Finds clipping: runs of three or more consecutive samples at or beyond 0.999 of full scale. Must see the sound before
 * any resampling, which rounds flat tops off. Frames are at the sound's own rate.
 */
public final class ClippingFinder implements SampleSink {

    private static final float FULL_SCALE = 0.999f;
    private static final int SHORTEST_RUN = 3;
    private static final int SPOTS_A_SECOND = 20;

    private final long[] runLength;
    private final List<List<ClippedSpot>> spots = new ArrayList<>();
    private final long joinFrames;
    private long position;

    /** @param sampleRate frames a second */
    public ClippingFinder(int channels, int sampleRate) {
        runLength = new long[channels];
        joinFrames = sampleRate / SPOTS_A_SECOND;
        for (int c = 0; c < channels; c++) {
            spots.add(new ArrayList<>());
        }
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

    /** The spots of all channels in the order of their places; call once, when the sound has ended. */
    public List<ClippedSpot> finish() {
        List<ClippedSpot> all = new ArrayList<>();
        for (int c = 0; c < runLength.length; c++) {
            endRun(c, runLength[c], position);
            runLength[c] = 0;
            all.addAll(spots.get(c));
        }
        all.sort(Comparator.comparingLong(ClippedSpot::startFrame));
        List<ClippedSpot> joined = new ArrayList<>();
        all.forEach(spot -> join(joined, spot));
        return List.copyOf(joined);
    }

    private void endRun(int channel, long length, long endFrame) {
        if (length >= SHORTEST_RUN) {
            join(spots.get(channel), new ClippedSpot(endFrame - length, endFrame, 1));
        }
    }

    /** Adds a spot that starts no earlier than the last of the list, or joins it to that. */
    private void join(List<ClippedSpot> list, ClippedSpot next) {
        ClippedSpot last = list.isEmpty() ? null : list.get(list.size() - 1);
        if (last != null && next.startFrame() - last.endFrame() <= joinFrames) {
            list.set(list.size() - 1, new ClippedSpot(last.startFrame(), Math.max(last.endFrame(), next.endFrame()),
                    last.runs() + next.runs()));
        } else {
            list.add(next);
        }
    }
}

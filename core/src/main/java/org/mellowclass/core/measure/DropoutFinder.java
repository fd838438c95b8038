package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.List;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.Span;

/**
 * Finds dropouts in sound at 48 kHz: 5 ms or more in which every channel is exactly zero, with sound above −40 dBFS (peak) within 1 ms on both
 * sides.
 */
public final class DropoutFinder implements SampleSink {

    private static final int SHORTEST = (int) Frames.ofMillis(5);
    private static final int BESIDE = (int) Frames.ofMillis(1);
    private static final float HEARD = (float) Decibels.toAmplitude(-40);

    private final List<Span> found = new ArrayList<>();
    /** The largest amplitudes of the last millisecond: a ring. */
    private final float[] last = new float[BESIDE];
    private long frame;
    private long zerosFrom = -1;
    private boolean heardBefore;
    /** A stretch of zeros that waits for sound behind it. */
    private Span waiting;

    @Override
    public void accept(float[][] block, int frames) {
        int looked = 0;
        while (looked < frames) {
            int passed = zerosFrom < 0 && waiting == null ? passed(block[0], looked, frames) : looked;
            // what was heard right before a dropout has to be remembered
            int from = Math.max(looked, passed - BESIDE);
            frame += from - looked;
            looked = Math.min(frames, passed + SHORTEST);
            look(block, from, looked);
        }
    }

    /** Up to where no dropout begins: it would be long enough to reach a sample that is not zero. */
    private static int passed(float[] samples, int from, int to) {
        int passed = from;
        while (passed + SHORTEST <= to && samples[passed + SHORTEST - 1] != 0) {
            passed += SHORTEST;
        }
        return passed;
    }

    private void look(float[][] block, int from, int to) {
        for (int i = from; i < to; i++, frame++) {
            float largest = 0;
            for (float[] channel : block) {
                largest = Math.max(largest, Math.abs(channel[i]));
            }
            if (largest == 0) {
                if (zerosFrom < 0) {
                    zerosFrom = frame;
                    heardBefore = heardLately();
                }
            } else {
                if (zerosFrom >= 0 && frame - zerosFrom >= SHORTEST) {
                    waiting = heardBefore ? new Span(zerosFrom, frame) : null;
                }
                zerosFrom = -1;
            }
            last[(int) (frame % BESIDE)] = largest;
            if (waiting != null && frame - waiting.endFrame() >= BESIDE) {
                waiting = null;
            } else if (waiting != null && largest >= HEARD) {
                found.add(waiting);
                waiting = null;
            }
        }
    }

    private boolean heardLately() {
        for (float largest : last) {
            if (largest >= HEARD) {
                return true;
            }
        }
        return false;
    }

    /** In order. */
    public List<Span> dropouts() {
        return List.copyOf(found);
    }
}

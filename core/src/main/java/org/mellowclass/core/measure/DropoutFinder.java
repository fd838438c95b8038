package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
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

    private static final long SHORTEST = Frames.ofMillis(5);
    /** Where no sample of a part is zero, only the end of it has to be remembered. */
    private static final int PART = (int) Frames.ofMillis(10);
    private static final int BESIDE = (int) Frames.ofMillis(1);
    private static final float HEARD = (float) Decibels.toAmplitude(-40);

    private final List<Span> found = new ArrayList<>();
    /** The largest amplitudes of the last frames before the zeros: a ring. */
    private final float[] last = new float[BESIDE];
    private long frame;
    private long zerosFrom = -1;
    private boolean heardBefore;
    /** A stretch of zeros that waits for sound behind it. */
    private Span waiting;

    @Override
    public void accept(float[][] block, int frames) {
        for (int from = 0; from < frames; from += PART) {
            int to = Math.min(frames, from + PART);
            boolean plainSound = zerosFrom < 0 && waiting == null && to - from > BESIDE && noZero(block[0], from, to - BESIDE);
            int skipped = plainSound ? to - from - BESIDE : 0;
            frame += skipped;
            look(block, from + skipped, to);
        }
    }

    private static boolean noZero(float[] samples, int from, int to) {
        boolean zero = false;
        for (int i = from; i < to; i++) {
            zero |= samples[i] == 0;
        }
        return !zero;
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
                continue;
            }
            if (zerosFrom >= 0) {
                waiting = heardBefore && frame - zerosFrom >= SHORTEST ? new Span(zerosFrom, frame) : null;
                zerosFrom = -1;
                Arrays.fill(last, 0f);
            }
            last[(int) (frame % BESIDE)] = largest;
            if (waiting != null && frame - waiting.endFrame() < BESIDE && largest >= HEARD) {
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

package org.mellowclass.core.testing;

import java.util.Arrays;

/** Lines two sounds up by correlation, since a microphone starts when it likes. */
public final class Alignment {

    private static final int STEP = 8;

    private Alignment() {
    }

    /**
     * How many frames later the reference's sound stands in {@code heard} (negative: earlier), at most {@code most} away.
     */
    public static int offset(float[] reference, float[] heard, int most) {
        return offset(reference, 0, reference.length, heard, 0, most);
    }

    /**
     * The same for {@code frames} frames of the reference from {@code from} on, at most {@code most} away from an offset
     * that is expected.
     */
    public static int offset(float[] reference, int from, int frames, float[] heard, int expected, int most) {
        float[] part = Arrays.copyOfRange(reference, from, from + frames);
        int first = from + expected - most;
        float[] near = new float[frames + 2 * most];
        for (int i = 0; i < near.length; i++) {
            near[i] = at(heard, first + i);
        }
        int coarse = STEP * best(averaged(part), averaged(near), 0, 2 * most / STEP);
        int fine = best(part, near, Math.max(0, coarse - 2 * STEP), coarse + 2 * STEP);
        return expected + fine - most;
    }

    /** The normalised correlation of {@code frames} frames from two places; 0 where one of them is silent. */
    public static double correlation(float[] a, int fromA, float[] b, int fromB, int frames) {
        double both = 0;
        double ofA = 0;
        double ofB = 0;
        for (int i = 0; i < frames; i++) {
            double x = at(a, fromA + i);
            double y = at(b, fromB + i);
            both += x * y;
            ofA += x * x;
            ofB += y * y;
        }
        return ofA == 0 || ofB == 0 ? 0 : both / Math.sqrt(ofA * ofB);
    }

    private static int best(float[] reference, float[] heard, int from, int to) {
        int best = from;
        double most = Double.NEGATIVE_INFINITY;
        for (int lag = from; lag <= to; lag++) {
            double sum = 0;
            int end = Math.min(reference.length, heard.length - lag);
            for (int i = 0; i < end; i++) {
                sum += reference[i] * heard[i + lag];
            }
            if (sum > most) {
                most = sum;
                best = lag;
            }
        }
        return best;
    }

    private static float[] averaged(float[] samples) {
        float[] coarse = new float[samples.length / STEP];
        for (int i = 0; i < coarse.length; i++) {
            for (int k = 0; k < STEP; k++) {
                coarse[i] += samples[STEP * i + k] / STEP;
            }
        }
        return coarse;
    }

    private static float at(float[] samples, int index) {
        return index >= 0 && index < samples.length ? samples[index] : 0;
    }
}

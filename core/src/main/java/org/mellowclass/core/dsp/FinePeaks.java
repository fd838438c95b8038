package org.mellowclass.core.dsp;

import java.util.Arrays;

/**
 * How high the wave between samples reaches, seen at sixteenth steps: windowed sincs of 64 taps, which are flat to 0.94 of the Nyquist frequency.
 * The filter of ITU-R BS.1770-5, Annex 2, at quarter steps misses up to 0.7 dB of noise that reaches so high; where it reads more, that counts, so that
 * no meter finds more. First the quarters are looked at; only where these come near to what is asked for, the rest.
 */
final class FinePeaks {

    static final int TAPS = 64;
    /** The wave that is seen lies behind this many frames before the newest sample, and before the frame after it. */
    static final int DELAY_FRAMES = TAPS / 2;

    private static final int STEPS = 16;
    private static final int QUARTER = STEPS / 4;
    /** Between quarter steps a wave of 0.94 of the Nyquist frequency rises by no more: 1 / cos(0.94 π / 8). */
    private static final double BETWEEN_QUARTERS = 1.075;
    /** The short filter of the standard reads no more than that over the quarters. */
    private static final double OVER_BY_STANDARD = 1.3;
    private static final int STANDARD_BEHIND = DELAY_FRAMES - TruePeakInterpolator.DELAY_FRAMES;
    private static final float[][] FILTERS = filters();
    /** No value between samples is larger than the largest sample under the filter times this. */
    static final double MOST_GAIN = mostGain();

    private FinePeaks() {
    }

    /** A sinc at each step between two frames, under a Hann window as wide as the filter. */
    private static float[][] filters() {
        float[][] filters = new float[STEPS][TAPS];
        for (int step = 1; step < STEPS; step++) {
            double sum = 0;
            double[] taps = new double[TAPS];
            for (int k = 0; k < TAPS; k++) {
                double x = DELAY_FRAMES - k - (double) step / STEPS;
                taps[k] = Math.sin(Math.PI * x) / (Math.PI * x) * (0.5 + 0.5 * Math.cos(Math.PI * x / DELAY_FRAMES));
                sum += taps[k];
            }
            for (int k = 0; k < TAPS; k++) {
                filters[step][k] = (float) (taps[k] / sum);
            }
        }
        return filters;
    }

    private static double mostGain() {
        double most = 0;
        for (float[] filter : FILTERS) {
            double sum = 0;
            for (float tap : filter) {
                sum += Math.abs(tap);
            }
            most = Math.max(most, sum);
        }
        return most;
    }

    /**
     * The largest magnitudes of the wave, both frames at the ends included.
     *
     * @param samples with {@link #TAPS} − 1 of them before the first
     * @param from    the newest sample for the first peak
     * @param to      behind the newest for the last
     * @param near    only what may pass it is seen at all steps
     * @param peaks   filled from 0 on
     */
    static void find(float[] samples, int from, int to, double near, float[] peaks) {
        int count = to - from;
        for (int i = 0; i < count; i++) {
            int at = from + i - DELAY_FRAMES;
            peaks[i] = Math.max(Math.abs(samples[at]), Math.abs(samples[at + 1]));
        }
        float[] sums = new float[count];
        for (int step = QUARTER; step < STEPS; step += QUARTER) {
            Arrays.fill(sums, 0);
            for (int k = 0; k < TAPS; k++) {
                float tap = FILTERS[step][k];
                for (int i = 0; i < count; i++) {
                    sums[i] += tap * samples[from + i - k];
                }
            }
            for (int i = 0; i < count; i++) {
                peaks[i] = Math.max(peaks[i], Math.abs(sums[i]));
            }
        }
        for (int i = 0; i < count; i++) {
            if (peaks[i] * OVER_BY_STANDARD > near) {
                peaks[i] = Math.max(peaks[i], (float) TruePeakInterpolator.peakAt(samples, from + i - STANDARD_BEHIND));
            }
            if (peaks[i] * BETWEEN_QUARTERS > near) {
                peaks[i] = Math.max(peaks[i], between(samples, from + i));
            }
        }
    }

    private static float between(float[] samples, int newest) {
        float most = 0;
        for (int step = 1; step < STEPS; step++) {
            if (step % QUARTER != 0) {
                float sum = 0;
                for (int k = 0; k < TAPS; k++) {
                    sum += FILTERS[step][k] * samples[newest - k];
                }
                most = Math.max(most, Math.abs(sum));
            }
        }
        return most;
    }
}

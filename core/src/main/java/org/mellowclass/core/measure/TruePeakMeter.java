package org.mellowclass.core.measure;

import java.util.Arrays;
import java.util.OptionalDouble;

import org.mellowclass.core.dsp.TruePeakInterpolator;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.SampleSink;

/**
 * True peak after ITU-R BS.1770-5, Annex 2, of the highest channel, in dBTP; empty for digital silence.
 *
 * <p>A part whose largest sample, times the filter's largest absolute sum of taps, cannot pass the peak so far is not
 * interpolated: the result is exactly the same.
 */
public final class TruePeakMeter implements SampleSink {

    private static final int KEEP = TruePeakInterpolator.TAPS - 1;
    private static final int BLOCK = 512;
    /** Short, so that one high peak makes few samples near it worth a look. */
    private static final int PART = 16;

    private final float[][] window;
    private double peak;

    public TruePeakMeter(int channels) {
        window = new float[channels][KEEP + BLOCK];
    }

    @Override
    public void accept(float[][] block, int frames) {
        for (int c = 0; c < window.length; c++) {
            for (int from = 0; from < frames; from += BLOCK) {
                scan(window[c], block[c], from, Math.min(BLOCK, frames - from));
            }
        }
    }

    /** The highest amplitude so far, without what the last samples' wave may still reach. */
    public double highest() {
        return peak;
    }

    /** Begins anew behind what has come, of which the last samples still shape the wave. */
    public void forgetPeak() {
        peak = 0;
    }

    /** Of all that has come, as if silence followed: the last samples' wave reaches its peak behind them. */
    public OptionalDouble truePeakDbtp() {
        double most = peak;
        for (float[] samples : window) {
            float[] end = Arrays.copyOf(Arrays.copyOf(samples, KEEP), 2 * KEEP);
            for (int i = KEEP; i < end.length; i++) {
                most = Math.max(most, TruePeakInterpolator.peakAt(end, i));
            }
        }
        return most > 0 ? OptionalDouble.of(Decibels.ofAmplitude(most)) : OptionalDouble.empty();
    }

    private void scan(float[] samples, float[] block, int from, int count) {
        float largest = Math.max(SampleStatistics.largest(samples, 0, KEEP), SampleStatistics.largest(block, from, from + count));
        double most = Math.max(peak, largest);
        if (count < KEEP || largest * TruePeakInterpolator.MOST_GAIN > most) {
            System.arraycopy(block, from, samples, KEEP, count);
            for (int start = KEEP; start < KEEP + count; start += PART) {
                int end = Math.min(start + PART, KEEP + count);
                float near = SampleStatistics.largest(samples, start - KEEP, end);
                for (int i = start; i < end && near * TruePeakInterpolator.MOST_GAIN > most; i++) {
                    if (!TruePeakInterpolator.staysUnder(most, samples, i, near)) {
                        most = Math.max(most, TruePeakInterpolator.peakAt(samples, i));
                    }
                }
            }
        }
        peak = most;
        if (count < KEEP) {
            System.arraycopy(samples, count, samples, 0, KEEP);
        } else {
            System.arraycopy(block, from + count - KEEP, samples, 0, KEEP);
        }
    }
}

package org.mellowclass.core.measure;

import java.util.OptionalDouble;

import org.mellowclass.core.dsp.TruePeakInterpolator;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.SampleSink;

/**
 * True peak after ITU-R BS.1770-5, Annex 2, of the highest channel, in dBTP; empty for digital silence.
 *
 * <p>A block whose largest sample, times the filter's largest absolute sum of taps, cannot pass the peak so far is not
 * interpolated: the result is exactly the same.
 */
public final class TruePeakMeter implements SampleSink {

    private static final int KEEP = TruePeakInterpolator.TAPS - 1;
    private static final int BLOCK = 512;

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

    public OptionalDouble truePeakDbtp() {
        return peak > 0 ? OptionalDouble.of(Decibels.ofAmplitude(peak)) : OptionalDouble.empty();
    }

    private void scan(float[] samples, float[] block, int from, int count) {
        System.arraycopy(block, from, samples, KEEP, count);
        float largest = 0;
        for (int i = 0; i < KEEP + count; i++) {
            float size = Math.abs(samples[i]);
            largest = size > largest ? size : largest;
        }
        double most = Math.max(peak, largest);
        if (largest * TruePeakInterpolator.MOST_GAIN > most) {
            for (int i = KEEP; i < KEEP + count; i++) {
                double between = TruePeakInterpolator.peakAt(samples, i);
                most = between > most ? between : most;
            }
        }
        peak = most;
        System.arraycopy(samples, count, samples, 0, KEEP);
    }
}

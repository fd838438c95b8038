package org.mellowclass.core.dsp;

import java.util.Arrays;

import org.mellowclass.core.sound.Frames;

/**
 * Takes down a harsh "s": a compressor on the band from 4 to 10 kHz alone. The band is cut out by a filter of linear phase, so that the sound
 * without a gain is the sound as it was.
 */
public final class SoftS extends GainRider {

    private static final double LOW_HZ = 4000;
    private static final double HIGH_HZ = 10_000;
    private static final int TAPS = 95;
    private static final int MIDDLE = TAPS / 2;
    private static final double RATIO = 4;
    private static final double FALL_MS = 2;
    private static final double RISE_MS = 60;
    private static final float[] BAND = band();

    private final double thresholdDbfs;
    private final double mostDb;
    /** The last inputs of each channel, twice over, so that a window of them is always in one piece. */
    private final float[][] inputs;
    private final float[] band;
    private final DelayLine[] bandDelays;
    private int at;

    /**
     * @param thresholdDbfs of the band, of a sine by its peak
     * @param mostDb        how much is taken down at most
     */
    public SoftS(int channels, double thresholdDbfs, double mostDb) {
        super(channels, MIDDLE / STEP + 1, FALL_MS, RISE_MS);
        this.thresholdDbfs = thresholdDbfs;
        this.mostDb = mostDb;
        inputs = new float[channels][2 * TAPS];
        band = new float[channels];
        bandDelays = new DelayLine[channels];
        for (int c = 0; c < channels; c++) {
            bandDelays[c] = new DelayLine(latencyFrames() - MIDDLE);
        }
    }

    private static float[] band() {
        float[] taps = new float[TAPS];
        for (int i = 0; i < TAPS; i++) {
            int n = i - MIDDLE;
            double window = 0.5 * (1 + Math.cos(2 * Math.PI * n / (TAPS + 1)));
            taps[i] = (float) (window * (lowPass(HIGH_HZ, n) - lowPass(LOW_HZ, n)));
        }
        return taps;
    }

    private static double lowPass(double hertz, int n) {
        double turns = 2 * hertz / Frames.RATE;
        return n == 0 ? turns : Math.sin(Math.PI * turns * n) / (Math.PI * n);
    }

    @Override
    double squares(float[][] block, int frame) {
        double most = 0;
        for (int c = 0; c < block.length; c++) {
            float[] input = inputs[c];
            input[at] = block[c][frame];
            input[at + TAPS] = block[c][frame];
            float sum = 0;
            for (int i = 0; i < TAPS; i++) {
                sum += BAND[i] * input[at + 1 + i];
            }
            most = Math.max(most, (double) sum * sum);
            band[c] = bandDelays[c].through(sum);
        }
        at = at + 1 == TAPS ? 0 : at + 1;
        return most;
    }

    @Override
    void apply(float[][] block, int frame, float now) {
        for (int c = 0; c < block.length; c++) {
            block[c][frame] += (now - 1) * band[c];
        }
    }

    @Override
    double wantedDb(double levelDbfs) {
        return Math.max(-mostDb, Math.min(0, (thresholdDbfs - levelDbfs) * (1 - 1 / RATIO)));
    }

    @Override
    public void reset() {
        super.reset();
        for (float[] input : inputs) {
            Arrays.fill(input, 0f);
        }
        for (DelayLine delay : bandDelays) {
            delay.reset();
        }
        at = 0;
    }
}

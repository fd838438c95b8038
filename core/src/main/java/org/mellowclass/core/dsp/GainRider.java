package org.mellowclass.core.dsp;

import java.util.Arrays;

import org.mellowclass.core.sound.Decibels;

/**
 * A gain that follows the level. Level and gain are found every {@link #STEP} frames, from the mean square of the last 10 ms; between two the
 * gain goes straight. The wanted gain is smoothed in decibels, falling and rising by times of their own (the smooth branching detector of
 * Giannoulis, Massberg and Reiss, Digital dynamic range compressor design, JAES 60, 2012). All channels share one gain, which looks ahead a little.
 */
abstract class GainRider implements Processor {

    static final int STEP = 16;
    private static final int WINDOW_STEPS = 30;
    private static final double STEPS_A_SECOND = 48_000.0 / STEP;
    /** A sine reads its peak. */
    private static final double SINE_DB = Decibels.ofPower(2);
    private static final double LOWEST_DB = -120;
    /** What has settled so far has. */
    private static final double TIMES_TO_SETTLE = 7;

    private final DelayLine[] delays;
    private final int aheadFrames;
    private final double falling;
    private final double rising;
    private final double slowestMs;
    private final double[] window = new double[WINDOW_STEPS];
    private double stepSquares;
    private int inStep;
    private long steps;
    private double gainDb;
    private float gain = 1;
    private float slope;

    /**
     * @param aheadSteps how far the gain looks ahead, in steps
     * @param fallMs     time constant of a falling gain
     * @param riseMs     of a rising one
     */
    GainRider(int channels, int aheadSteps, double fallMs, double riseMs) {
        aheadFrames = aheadSteps * STEP;
        delays = new DelayLine[channels];
        for (int c = 0; c < channels; c++) {
            delays[c] = new DelayLine(aheadFrames);
        }
        falling = part(fallMs);
        rising = part(riseMs);
        slowestMs = Math.max(fallMs, riseMs);
    }

    private static double part(double ms) {
        return 1 - Math.exp(-1000 / (ms * STEPS_A_SECOND));
    }

    /** The gain that is wanted at a level, both in dB; the level of a sine is its peak. */
    abstract double wantedDb(double levelDbfs);

    /** What of a frame the level is measured of. */
    double squares(float[][] block, int frame) {
        double most = 0;
        for (float[] channel : block) {
            most = Math.max(most, (double) channel[frame] * channel[frame]);
        }
        return most;
    }

    /** A frame with the gain, where the delayed samples are given. */
    void apply(float[][] block, int frame, float now) {
        for (float[] channel : block) {
            channel[frame] *= now;
        }
    }

    @Override
    public void process(float[][] block, int frames) {
        for (int i = 0; i < frames; i++) {
            stepSquares += squares(block, i);
            for (int c = 0; c < block.length; c++) {
                block[c][i] = delays[c].through(block[c][i]);
            }
            gain += slope;
            apply(block, i, gain);
            if (++inStep == STEP) {
                endStep();
            }
        }
    }

    private void endStep() {
        window[(int) (steps % WINDOW_STEPS)] = stepSquares;
        steps++;
        stepSquares = 0;
        inStep = 0;
        double sum = 0;
        for (double squares : window) {
            sum += squares;
        }
        double power = sum / (WINDOW_STEPS * STEP);
        double wanted = wantedDb(power > 0 ? Math.max(LOWEST_DB, Decibels.ofPower(power) + SINE_DB) : LOWEST_DB);
        gainDb += (wanted < gainDb ? falling : rising) * (wanted - gainDb);
        slope = ((float) Decibels.toAmplitude(gainDb) - gain) / STEP;
    }

    @Override
    public void reset() {
        Arrays.fill(window, 0);
        for (DelayLine delay : delays) {
            delay.reset();
        }
        stepSquares = 0;
        inStep = 0;
        steps = 0;
        gainDb = 0;
        gain = 1;
        slope = 0;
    }

    @Override
    public int latencyFrames() {
        return aheadFrames;
    }

    @Override
    public int settleFrames() {
        return (int) (TIMES_TO_SETTLE * slowestMs * 48) + WINDOW_STEPS * STEP + aheadFrames;
    }
}

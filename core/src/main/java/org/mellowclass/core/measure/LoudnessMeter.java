package org.mellowclass.core.measure;

import java.util.Arrays;
import java.util.OptionalDouble;

import org.mellowclass.core.dsp.Biquad;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;

/**
 * Loudness after ITU-R BS.1770-5, Annex 1, for sound at 48 kHz: K-weighting (its tables 1 and 2), blocks of 400 ms with
 * 75 % overlap, a gate at −70 LUFS, then one 10 LU below the mean of the blocks that passed it. Momentary (400 ms) and
 * short-term (3 s, EBU Tech 3341) loudness are followed in steps of 20 ms.
 *
 * <p>Channels in the order of WAV: left, right, centre, low-frequency effects (left out of the sum), left and right
 * surround (weighted 1.41). One channel is measured as one channel. Values are LUFS; what has none (silence, or too short a
 * sound) is empty.
 */
public final class LoudnessMeter implements SampleSink {

    private static final int HOP_FRAMES = Frames.RATE / 50;
    private static final int MOMENTARY_HOPS = 20;
    private static final int SHORT_TERM_HOPS = 150;
    private static final int BLOCK_STEP_HOPS = 5;
    private static final double ABSOLUTE_GATE_LUFS = -70;
    private static final double RELATIVE_GATE_LU = -10;
    private static final double OFFSET_LUFS = -0.691;

    /** Time between two values of {@link #momentary()}. */
    public static final int MOMENTARY_STEP_FRAMES = BLOCK_STEP_HOPS * HOP_FRAMES;
    /** Length of the window of one momentary value. */
    public static final int MOMENTARY_FRAMES = MOMENTARY_HOPS * HOP_FRAMES;

    private final double[] weights;
    private final Biquad[] shelf;
    private final Biquad[] highPass;
    /** Weighted mean square of the last hops: a ring. */
    private final double[] hops = new double[SHORT_TERM_HOPS];
    private long hopCount;
    private int inHop;
    private double hopSum;
    private double[] blockPowers = new double[1024];
    private int blockCount;
    private double maxMomentaryPower;
    private double maxShortTermPower;

    public LoudnessMeter(int channels) {
        weights = new double[channels];
        shelf = new Biquad[channels];
        highPass = new Biquad[channels];
        for (int c = 0; c < channels; c++) {
            weights[c] = c == 3 ? 0 : c > 3 ? 1.41 : 1;
            shelf[c] = new Biquad(1.53512485958697, -2.69169618940638, 1.19839281085285,
                    -1.69065929318241, 0.73248077421585);
            highPass[c] = new Biquad(1, -2, 1, -1.99004745483398, 0.99007225036621);
        }
    }

    @Override
    public void accept(float[][] block, int frames) {
        int done = 0;
        while (done < frames) {
            int count = Math.min(frames - done, HOP_FRAMES - inHop);
            for (int c = 0; c < weights.length; c++) {
                if (weights[c] != 0) {
                    hopSum += weights[c] * weightedSquares(block[c], done, count, shelf[c], highPass[c]);
                }
            }
            done += count;
            inHop += count;
            if (inHop == HOP_FRAMES) {
                endHop();
            }
        }
    }

    /** Integrated loudness, gated. */
    public OptionalDouble integrated() {
        double absolute = meanAbove(powerOf(ABSOLUTE_GATE_LUFS));
        return loudness(meanAbove(absolute * Decibels.toPower(RELATIVE_GATE_LU)));
    }

    public OptionalDouble maxMomentary() {
        return loudness(maxMomentaryPower);
    }

    public OptionalDouble maxShortTerm() {
        return loudness(maxShortTermPower);
    }

    /**
     * Momentary loudness every {@link #MOMENTARY_STEP_FRAMES}, the first for the first {@link #MOMENTARY_FRAMES}; LUFS,
     * and negative infinity for digital silence.
     */
    public double[] momentary() {
        double[] values = new double[blockCount];
        for (int i = 0; i < blockCount; i++) {
            values[i] = OFFSET_LUFS + Decibels.ofPower(blockPowers[i]);
        }
        return values;
    }

    private static double weightedSquares(float[] samples, int from, int count, Biquad shelf, Biquad highPass) {
        double sum = 0;
        for (int i = from; i < from + count; i++) {
            double weighted = highPass.process(shelf.process(samples[i]));
            sum += weighted * weighted;
        }
        return sum;
    }

    private void endHop() {
        hops[(int) (hopCount % SHORT_TERM_HOPS)] = hopSum / HOP_FRAMES;
        hopCount++;
        hopSum = 0;
        inHop = 0;
        if (hopCount >= MOMENTARY_HOPS) {
            double momentary = meanOfLast(MOMENTARY_HOPS);
            maxMomentaryPower = Math.max(maxMomentaryPower, momentary);
            if ((hopCount - MOMENTARY_HOPS) % BLOCK_STEP_HOPS == 0) {
                if (blockCount == blockPowers.length) {
                    blockPowers = Arrays.copyOf(blockPowers, 2 * blockCount);
                }
                blockPowers[blockCount++] = momentary;
            }
        }
        if (hopCount >= SHORT_TERM_HOPS) {
            maxShortTermPower = Math.max(maxShortTermPower, meanOfLast(SHORT_TERM_HOPS));
        }
    }

    private double meanOfLast(int count) {
        double sum = 0;
        for (long hop = hopCount - count; hop < hopCount; hop++) {
            sum += hops[(int) (hop % SHORT_TERM_HOPS)];
        }
        return sum / count;
    }

    /** The mean power of the blocks above both the absolute gate and {@code gate}; 0 if there is none. */
    private double meanAbove(double gate) {
        double most = Math.max(gate, powerOf(ABSOLUTE_GATE_LUFS));
        double sum = 0;
        int count = 0;
        for (int i = 0; i < blockCount; i++) {
            if (blockPowers[i] > most) {
                sum += blockPowers[i];
                count++;
            }
        }
        return count == 0 ? 0 : sum / count;
    }

    private static double powerOf(double lufs) {
        return Decibels.toPower(lufs - OFFSET_LUFS);
    }

    private static OptionalDouble loudness(double power) {
        return power > 0 ? OptionalDouble.of(OFFSET_LUFS + Decibels.ofPower(power)) : OptionalDouble.empty();
    }
}

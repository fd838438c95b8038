package org.mellowclass.core.measure;

import java.util.Arrays;
import java.util.OptionalDouble;
import java.util.function.DoubleConsumer;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;

/**
 * Loudness after ITU-R BS.1770-5, Annex 1, for sound at 48 kHz: K-weighting (its tables 1 and 2), blocks of 400 ms with
 * 75 % overlap, a gate at −70 LUFS, then one 10 LU below the mean of the blocks that passed it. Momentary (400 ms) and
 * short-term (3 s, EBU Tech 3341) loudness are followed in steps of 20 ms.
 *
 * <p>Channels are weighted by {@link ChannelWeights}. One channel is measured as one channel. Values are LUFS; what has none
 * (silence, or too short a sound) is empty. Loudness range is that of EBU Tech 3342.
 */
public final class LoudnessMeter implements SampleSink {

    /** Time between two values of the weighted mean square that all else is made of. */
    public static final int HOP_FRAMES = Frames.RATE / 50;
    private static final int MOMENTARY_HOPS = 20;
    private static final int SHORT_TERM_HOPS = 150;
    private static final int BLOCK_STEP_HOPS = 5;
    private static final double ABSOLUTE_GATE_LUFS = -70;
    private static final double RELATIVE_GATE_LU = -10;
    private static final double RANGE_GATE_LU = -20;
    private static final double RANGE_LOW = 0.10;
    private static final double RANGE_HIGH = 0.95;
    static final double OFFSET_LUFS = -0.691;

    /** Time between two values of {@link #momentary()}. */
    public static final int MOMENTARY_STEP_FRAMES = BLOCK_STEP_HOPS * HOP_FRAMES;
    /** Length of the window of one momentary value. */
    public static final int MOMENTARY_FRAMES = MOMENTARY_HOPS * HOP_FRAMES;

    private final double[] weights;
    private final KWeighting[] weighting;
    /** Weighted mean square of the last hops: a ring. */
    private final double[] hops = new double[SHORT_TERM_HOPS];
    private long hopCount;
    private int inHop;
    private double hopSum;
    private DoubleConsumer eachHop = hop -> { };
    private final Powers blocks = new Powers();
    private final Powers shortTerms = new Powers();
    private double maxMomentaryPower;
    private double maxShortTermPower;

    public LoudnessMeter(int channels) {
        weights = ChannelWeights.of(channels);
        weighting = new KWeighting[channels];
        for (int c = 0; c < channels; c++) {
            weighting[c] = new KWeighting();
        }
    }

    @Override
    public void accept(float[][] block, int frames) {
        int done = 0;
        while (done < frames) {
            int count = Math.min(frames - done, HOP_FRAMES - inHop);
            double squares = weights.length == 2
                    ? KWeighting.squares(weighting[0], block[0], weighting[1], block[1], done, count)
                    : weightedSquares(block, done, count);
            add(squares, count);
            done += count;
        }
    }

    /** Takes squares that somebody else has weighted; no part reaches over the end of a hop. */
    void add(double weightedSquares, int count) {
        hopSum += weightedSquares;
        inHop += count;
        if (inHop == HOP_FRAMES) {
            endHop();
        }
    }

    private double weightedSquares(float[][] block, int from, int count) {
        double sum = 0;
        for (int c = 0; c < weights.length; c++) {
            if (weights[c] != 0) {
                sum += weights[c] * weighting[c].squares(block[c], from, count);
            }
        }
        return sum;
    }

    /** Tells the weighted mean square of every hop of {@link #HOP_FRAMES} once it has come. */
    public LoudnessMeter telling(DoubleConsumer hop) {
        eachHop = hop;
        return this;
    }

    /** Takes a hop that was measured elsewhere, between whole hops. */
    public void addHop(double meanSquare) {
        add(meanSquare * HOP_FRAMES, HOP_FRAMES);
    }

    /** Integrated loudness, gated. */
    public OptionalDouble integrated() {
        double gate = powerOf(ABSOLUTE_GATE_LUFS);
        double passed = blocks.meanAbove(gate);
        return loudness(blocks.meanAbove(Math.max(gate, passed * Decibels.toPower(RELATIVE_GATE_LU))));
    }

    /**
     * Loudness range after EBU Tech 3342, in LU: from the 10th to the 95th percentile of the short-term loudness that lies
     * above −70 LUFS and not more than 20 LU under its mean. Empty where nothing does.
     */
    public OptionalDouble range() {
        double gate = powerOf(ABSOLUTE_GATE_LUFS);
        double passed = shortTerms.meanAbove(gate);
        double[] powers = shortTerms.above(Math.max(gate, passed * Decibels.toPower(RANGE_GATE_LU)));
        if (powers.length == 0) {
            return OptionalDouble.empty();
        }
        Arrays.sort(powers);
        double low = powers[(int) Math.round((powers.length - 1) * RANGE_LOW)];
        double high = powers[(int) Math.round((powers.length - 1) * RANGE_HIGH)];
        return OptionalDouble.of(Decibels.ofPower(high / low));
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
        return blocks.loudness();
    }

    /** Short-term loudness every {@link #MOMENTARY_STEP_FRAMES}, the first for the first three seconds; as {@link #momentary}. */
    public double[] shortTerm() {
        return shortTerms.loudness();
    }

    private void endHop() {
        eachHop.accept(hopSum / HOP_FRAMES);
        hops[(int) (hopCount % SHORT_TERM_HOPS)] = hopSum / HOP_FRAMES;
        hopCount++;
        hopSum = 0;
        inHop = 0;
        if (hopCount >= MOMENTARY_HOPS) {
            double momentary = meanOfLast(MOMENTARY_HOPS);
            maxMomentaryPower = Math.max(maxMomentaryPower, momentary);
            if ((hopCount - MOMENTARY_HOPS) % BLOCK_STEP_HOPS == 0) {
                blocks.add(momentary);
            }
        }
        if (hopCount >= SHORT_TERM_HOPS) {
            double shortTerm = meanOfLast(SHORT_TERM_HOPS);
            maxShortTermPower = Math.max(maxShortTermPower, shortTerm);
            if ((hopCount - SHORT_TERM_HOPS) % BLOCK_STEP_HOPS == 0) {
                shortTerms.add(shortTerm);
            }
        }
    }

    private double meanOfLast(int count) {
        int end = (int) (hopCount % SHORT_TERM_HOPS);
        double sum = 0;
        for (int i = Math.max(0, end - count); i < end; i++) {
            sum += hops[i];
        }
        for (int i = SHORT_TERM_HOPS + Math.min(0, end - count); i < SHORT_TERM_HOPS; i++) {
            sum += hops[i];
        }
        return sum / count;
    }

    private static double powerOf(double lufs) {
        return Decibels.toPower(lufs - OFFSET_LUFS);
    }

    private static OptionalDouble loudness(double power) {
        return power > 0 ? OptionalDouble.of(OFFSET_LUFS + Decibels.ofPower(power)) : OptionalDouble.empty();
    }

    /** Mean squares, one for each step: some 8 kB a minute. */
    private static final class Powers {

        private double[] values = new double[1024];
        private int count;

        void add(double power) {
            if (count == values.length) {
                values = Arrays.copyOf(values, 2 * count);
            }
            values[count++] = power;
        }

        double[] above(double gate) {
            return Arrays.stream(values, 0, count).filter(power -> power > gate).toArray();
        }

        double meanAbove(double gate) {
            return Arrays.stream(above(gate)).average().orElse(0);
        }

        double[] loudness() {
            return Arrays.stream(values, 0, count).map(power -> OFFSET_LUFS + Decibels.ofPower(power)).toArray();
        }
    }
}

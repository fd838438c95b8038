package org.mellowclass.core.dsp;

import java.io.IOException;
import java.util.Arrays;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.SampleSource;

/**
 * A look-ahead true-peak limiter with finite memory. The gain that each frame needs is found from the interpolated wave
 * ({@link TruePeakInterpolator}), held over a window (sliding minimum, monotonic queue: Lemire 2006) and smoothed by two
 * box filters one after the other, so that the gain at a frame is a mean of values none of which is too high for it.
 *
 * <p>Gains are fixed-point integers while they are summed: running sums are exact, nothing recursive remains of what lies
 * further away than the window, and sound that starts {@link #MEMORY_FRAMES} earlier gives equal bits. The gain falls and
 * rises over about 40 ms around a peak. All channels share one gain. The delay is taken out.
 */
public final class Limiter implements SampleSource {

    private static final int BOX = 960;
    /** Frames over which a needed gain is held: as many as both boxes reach together, for two neighbouring frames. */
    private static final int HOLD = 2 * BOX;
    private static final int DELAY = HOLD - 2 + FinePeaks.DELAY_FRAMES;
    /** How far before and after itself a frame can be changed by other frames. */
    public static final int MEMORY_FRAMES = 2 * HOLD + FinePeaks.TAPS;

    private static final long ONE = 1L << 30;
    private static final double FULL_SUM = (double) ONE * BOX * BOX;
    private static final int BLOCK = 4096;
    private static final int SCAN = 64;
    private static final int BEHIND = FinePeaks.TAPS - 1;

    private final SampleSource source;
    private final float inputGain;
    private final double ceiling;

    /** A block of input behind the last samples of the one before. */
    private final float[][] input;
    /** The gain that each frame of the block asks for, as a fixed-point number. */
    private final float[] peaks = new float[SCAN];
    private final long[] needed = new long[BEHIND + BLOCK];
    /** Frames whose gain is not known yet: a ring by channel. */
    private final float[][] delayed;
    private final SlidingMinimum held = new SlidingMinimum(HOLD);
    private final BoxSum first = new BoxSum(BOX, ONE);
    private final BoxSum second = new BoxSum(BOX, ONE * BOX);
    /** For how many frames no gain below one has been asked for. */
    private long calmFrames = MEMORY_FRAMES;
    /** Whether nothing in this block asks for a gain below one. */
    private boolean calm;
    private int slot;
    private long taken;
    private long given;
    private long inputFrames = Long.MAX_VALUE;
    private int inputAt = BEHIND;
    private int inputEnd = BEHIND;
    private double lowestGain = 1;

    /**
     * @param inputGainDb a gain before the limiter
     * @param ceilingDbtp what no interpolated value of the output should pass
     */
    public Limiter(SampleSource source, double inputGainDb, double ceilingDbtp) {
        this.source = source;
        this.inputGain = (float) Decibels.toAmplitude(inputGainDb);
        this.ceiling = Decibels.toAmplitude(ceilingDbtp);
        this.input = new float[source.channels()][BEHIND + BLOCK];
        this.delayed = new float[source.channels()][DELAY + 1];
    }

    @Override
    public int channels() {
        return source.channels();
    }

    @Override
    public int sampleRate() {
        return source.sampleRate();
    }

    /** The deepest gain reduction so far, in dB: 0 when nothing had to be limited. */
    public double deepestReductionDb() {
        return -Decibels.ofAmplitude(lowestGain);
    }

    @Override
    public int read(float[][] into, int offset, int frames) throws IOException {
        int made = 0;
        while (made < frames && given < inputFrames) {
            if (inputAt == inputEnd) {
                fill();
            }
            if (calm && calmFrames > MEMORY_FRAMES && taken > DELAY) {
                made += passThrough(into, offset + made, Math.min(frames - made, inputEnd - inputAt));
                continue;
            }
            for (int c = 0; c < input.length; c++) {
                delayed[c][slot] = input[c][inputAt];
            }
            double gain = gainAfter(needed[inputAt]);
            inputAt++;
            taken++;
            slot = slot == DELAY ? 0 : slot + 1;
            if (taken <= DELAY) {
                continue;
            }
            lowestGain = Math.min(lowestGain, gain);
            // the slot after the newest holds the oldest
            for (int c = 0; c < input.length; c++) {
                into[c][offset + made] = (float) (delayed[c][slot] * gain);
            }
            made++;
            given++;
        }
        return made;
    }

    @Override
    public void close() throws IOException {
        source.close();
    }

    /** A stretch in which nothing is limited, nor near it: the input, as late as always. */
    private int passThrough(float[][] into, int offset, int wanted) {
        int count = (int) Math.min(wanted, inputFrames - given);
        int at = slot;
        for (int c = 0; c < input.length; c++) {
            float[] from = input[c];
            float[] ring = delayed[c];
            float[] to = into[c];
            at = slot;
            for (int i = 0; i < count; i++) {
                ring[at] = from[inputAt + i];
                at = at == DELAY ? 0 : at + 1;
                to[offset + i] = ring[at];
            }
        }
        slot = at;
        inputAt += count;
        taken += count;
        given += count;
        return count;
    }

    /** The smoothed gain once one more needed gain is known. In a calm stretch it is exactly one, and nothing is summed. */
    private double gainAfter(long need) {
        if (need < ONE) {
            calmFrames = 0;
        } else if (++calmFrames > MEMORY_FRAMES) {
            held.clear();
            return 1;
        }
        return second.add(first.add(held.add(need))) / FULL_SUM;
    }

    /** Reads the next block, or the silence after the end, and finds the gains that it asks for. */
    private void fill() throws IOException {
        for (float[] channel : input) {
            System.arraycopy(channel, inputEnd - BEHIND, channel, 0, BEHIND);
        }
        int read = inputFrames == Long.MAX_VALUE ? source.read(input, BEHIND, BLOCK) : 0;
        if (read == 0) {
            if (inputFrames == Long.MAX_VALUE) {
                inputFrames = taken;
            }
            read = BLOCK;
            for (float[] channel : input) {
                Arrays.fill(channel, BEHIND, BEHIND + read, 0f);
            }
        }
        inputAt = BEHIND;
        inputEnd = BEHIND + read;
        Arrays.fill(needed, BEHIND, inputEnd, ONE);
        calm = true;
        for (float[] channel : input) {
            for (int i = BEHIND; i < inputEnd; i++) {
                channel[i] *= inputGain;
            }
            for (int from = BEHIND; from < inputEnd; from += SCAN) {
                findNeeded(channel, from, Math.min(from + SCAN, inputEnd));
            }
        }
    }

    /** Lowers {@link #needed} where a channel's wave, seen half a filter back, passes the ceiling. */
    private void findNeeded(float[] samples, int from, int to) {
        float largest = 0;
        for (int i = from - BEHIND; i < to; i++) {
            float size = Math.abs(samples[i]);
            largest = size > largest ? size : largest;
        }
        if (largest * FinePeaks.MOST_GAIN <= ceiling) {
            return;
        }
        FinePeaks.find(samples, from, to, ceiling, peaks);
        for (int i = from; i < to; i++) {
            double peak = peaks[i - from];
            if (peak > ceiling) {
                calm = false;
                needed[i] = Math.min(needed[i], (long) (ONE * (ceiling / peak)));
            }
        }
    }
}

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
    private static final int DELAY = HOLD - 2 + TruePeakInterpolator.DELAY_FRAMES;
    /** How far before and after itself a frame can be changed by other frames. */
    public static final int MEMORY_FRAMES = 2 * HOLD + TruePeakInterpolator.TAPS;

    private static final long ONE = 1L << 30;
    private static final int BLOCK = 4096;

    private final SampleSource source;
    private final double inputGain;
    private final double ceiling;

    private final float[][] input;
    /** Frames whose gain is not known yet: a ring by channel. */
    private final float[][] delayed;
    private final SlidingMinimum held = new SlidingMinimum(HOLD);
    private final BoxSum first = new BoxSum(BOX, ONE);
    private final BoxSum second = new BoxSum(BOX, ONE * BOX);
    private long taken;
    private long given;
    private long inputFrames = Long.MAX_VALUE;
    private int inputAt = TruePeakInterpolator.TAPS - 1;
    private int inputEnd = TruePeakInterpolator.TAPS - 1;
    private double lowestGain = 1;

    /**
     * @param inputGainDb a gain before the limiter
     * @param ceilingDbtp what no interpolated value of the output should pass
     */
    public Limiter(SampleSource source, double inputGainDb, double ceilingDbtp) {
        this.source = source;
        this.inputGain = Decibels.toAmplitude(inputGainDb);
        this.ceiling = Decibels.toAmplitude(ceilingDbtp);
        this.input = new float[source.channels()][TruePeakInterpolator.TAPS - 1 + BLOCK];
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
            int slot = (int) (taken % (DELAY + 1));
            double peak = 0;
            for (int c = 0; c < input.length; c++) {
                float sample = input[c][inputAt];
                delayed[c][slot] = sample;
                peak = Math.max(peak, interpolatedPeak(input[c], inputAt));
            }
            inputAt++;
            long needed = peak <= ceiling ? ONE : (long) (ONE * (ceiling / peak));
            long sum = second.add(first.add(held.add(needed)));
            taken++;
            if (taken <= DELAY) {
                continue;
            }
            double gain = (double) sum / ((double) ONE * BOX * BOX);
            lowestGain = Math.min(lowestGain, gain);
            int oldest = (int) (taken % (DELAY + 1));
            for (int c = 0; c < input.length; c++) {
                into[c][offset + made] = (float) (delayed[c][oldest] * gain);
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

    /** The interpolated peak between the sample six frames back and its neighbours, or that sample itself. */
    private double interpolatedPeak(float[] samples, int newest) {
        float most = 0;
        for (int k = 0; k < TruePeakInterpolator.TAPS; k++) {
            most = Math.max(most, Math.abs(samples[newest - k]));
        }
        if (most * TruePeakInterpolator.MOST_GAIN <= ceiling) {
            return 0;
        }
        float own = Math.max(Math.abs(samples[newest - 5]), Math.abs(samples[newest - 6]));
        return Math.max(own, TruePeakInterpolator.peakAt(samples, newest));
    }

    private void fill() throws IOException {
        int keep = TruePeakInterpolator.TAPS - 1;
        for (float[] channel : input) {
            System.arraycopy(channel, inputEnd - keep, channel, 0, keep);
        }
        int read = inputFrames == Long.MAX_VALUE ? source.read(input, keep, BLOCK) : 0;
        if (read > 0) {
            for (float[] channel : input) {
                for (int i = keep; i < keep + read; i++) {
                    channel[i] *= (float) inputGain;
                }
            }
        } else {
            if (inputFrames == Long.MAX_VALUE) {
                inputFrames = taken;
            }
            read = BLOCK;
            for (float[] channel : input) {
                Arrays.fill(channel, keep, keep + read, 0f);
            }
        }
        inputAt = keep;
        inputEnd = keep + read;
    }
}

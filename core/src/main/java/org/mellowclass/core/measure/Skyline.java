package org.mellowclass.core.measure;

import java.util.Arrays;
import java.util.OptionalDouble;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.SampleSink;

/**
 * The picture of a sound's level: for every bin of 256, 1 024, 4 096 and 16 384 frames the peak and the RMS level of the
 * loudest channel. Each level is kept as two bytes a bin, peak then RMS; see {@link #toByte} for the scale. A coarser bin
 * has the highest peak of its finer ones, so that a clipped spot shows at every zoom.
 */
public final class Skyline implements SampleSink {

    /** Frames a bin, finest first. */
    public static final int[] FRAMES_A_BIN = {256, 1024, 4096, 16384};

    /** The level of byte value 1; 0 stands for anything below. */
    public static final double LOWEST_DBFS = -96;
    private static final double STEPS_A_DB = 254 / -LOWEST_DBFS;

    private final Level finest;
    private final Level[] levels = new Level[FRAMES_A_BIN.length];

    public Skyline(int channels) {
        Level coarser = null;
        for (int i = levels.length - 1; i >= 0; i--) {
            coarser = new Level(FRAMES_A_BIN[i], channels, coarser);
            levels[i] = coarser;
        }
        finest = coarser;
    }

    @Override
    public void accept(float[][] block, int frames) {
        for (int from = 0; from < frames; ) {
            int count = Math.min(frames - from, finest.binFrames - finest.filled);
            for (int c = 0; c < finest.squares.length; c++) {
                finest.addSamples(c, block[c], from, from + count);
            }
            finest.fill(count);
            from += count;
        }
    }

    /** Ends bins that are only partly filled; call once, when the sound has ended. */
    public void finish() {
        for (Level level : levels) {
            if (level.filled > 0) {
                level.endBin();
            }
        }
    }

    /** The highest peak of all bins that have ended, in dBFS; empty for digital silence. */
    public OptionalDouble peakDbfs() {
        float highest = levels[levels.length - 1].highest;
        return highest > 0 ? OptionalDouble.of(Decibels.ofAmplitude(highest)) : OptionalDouble.empty();
    }

    /** The bins of one level: peak and RMS bytes by turns. */
    public byte[] bins(int level) {
        return Arrays.copyOf(levels[level].bytes, levels[level].size);
    }

    /** 0 below −96 dBFS, then steps of 96/254 dB up to 255 at 0 dBFS and above. */
    static byte toByte(double amplitude) {
        if (amplitude <= 0) {
            return 0;
        }
        double steps = (Decibels.ofAmplitude(amplitude) - LOWEST_DBFS) * STEPS_A_DB;
        return (byte) (steps < 0 ? 0 : Math.min(255, 1 + Math.round(steps)));
    }

    /** The level that a byte stands for; 0 stands for {@link #LOWEST_DBFS} too, so that every byte can be drawn. */
    public static double dbfs(int unsignedByte) {
        return LOWEST_DBFS + Math.max(0, unsignedByte - 1) / STEPS_A_DB;
    }

    /** The bins of one length; each bin that ends is added to the next coarser one. */
    private static final class Level {

        private final int binFrames;
        private final Level coarser;
        private final double[] squares;
        private byte[] bytes = new byte[1024];
        private int size;
        private int filled;
        private float peak;
        private float highest;

        Level(int binFrames, int channels, Level coarser) {
            this.binFrames = binFrames;
            this.coarser = coarser;
            this.squares = new double[channels];
        }

        /**
         * Of at most the finest bin's samples, which floats can sum: four sums side by side, so that none waits for the one
         * before. The bits of levels are ordered as the levels are, and whole numbers are compared faster.
         */
        void addSamples(int channel, float[] samples, int from, int to) {
            float a = 0;
            float b = 0;
            float c = 0;
            float d = 0;
            int most = Float.floatToRawIntBits(peak);
            int i = from;
            for (; i <= to - 4; i += 4) {
                float first = samples[i];
                float second = samples[i + 1];
                float third = samples[i + 2];
                float fourth = samples[i + 3];
                a += first * first;
                b += second * second;
                c += third * third;
                d += fourth * fourth;
                most = Math.max(most, Math.max(Math.max(levelBits(first), levelBits(second)), Math.max(levelBits(third), levelBits(fourth))));
            }
            for (; i < to; i++) {
                a += samples[i] * samples[i];
                most = Math.max(most, levelBits(samples[i]));
            }
            squares[channel] += (double) (a + b) + (c + d);
            peak = Float.intBitsToFloat(most);
        }

        private static int levelBits(float sample) {
            return Float.floatToRawIntBits(sample) & Integer.MAX_VALUE;
        }

        void fill(int frames) {
            filled += frames;
            if (filled == binFrames) {
                endBin();
            }
        }

        void endBin() {
            if (size == bytes.length) {
                bytes = Arrays.copyOf(bytes, 2 * size);
            }
            double loudest = 0;
            for (double square : squares) {
                loudest = Math.max(loudest, square);
            }
            bytes[size++] = toByte(peak);
            bytes[size++] = toByte(Math.sqrt(loudest / filled));
            if (coarser != null) {
                for (int c = 0; c < squares.length; c++) {
                    coarser.squares[c] += squares[c];
                }
                coarser.peak = Math.max(coarser.peak, peak);
                coarser.fill(filled);
            }
            highest = Math.max(highest, peak);
            Arrays.fill(squares, 0);
            peak = 0;
            filled = 0;
        }
    }
}

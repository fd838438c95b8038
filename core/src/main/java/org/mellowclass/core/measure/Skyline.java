package org.mellowclass.core.measure;

import java.util.Arrays;

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

    private final Level[] levels = new Level[FRAMES_A_BIN.length];
    private final int channels;

    public Skyline(int channels) {
        this.channels = channels;
        for (int i = 0; i < levels.length; i++) {
            levels[i] = new Level(FRAMES_A_BIN[i]);
        }
    }

    @Override
    public void accept(float[][] block, int frames) {
        for (Level level : levels) {
            level.add(block, channels, frames);
        }
    }

    /** Ends a bin that is only partly filled; call once, when the sound has ended. */
    public void finish() {
        for (Level level : levels) {
            if (level.filled > 0) {
                level.endBin();
            }
        }
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

    private static final class Level {

        private final int binFrames;
        private byte[] bytes = new byte[1024];
        private int size;
        private int filled;
        private float peak;
        private double[] squares = new double[0];

        Level(int binFrames) {
            this.binFrames = binFrames;
        }

        void add(float[][] block, int channels, int frames) {
            if (squares.length < channels) {
                squares = new double[channels];
            }
            for (int from = 0; from < frames; ) {
                int count = Math.min(frames - from, binFrames - filled);
                for (int c = 0; c < channels; c++) {
                    double sum = 0;
                    for (int i = from; i < from + count; i++) {
                        float sample = block[c][i];
                        sum += sample * sample;
                        peak = Math.max(peak, Math.abs(sample));
                    }
                    squares[c] += sum;
                }
                from += count;
                filled += count;
                if (filled == binFrames) {
                    endBin();
                }
            }
        }

        void endBin() {
            if (size == bytes.length) {
                bytes = Arrays.copyOf(bytes, 2 * size);
            }
            double loudest = 0;
            for (int c = 0; c < squares.length; c++) {
                loudest = Math.max(loudest, squares[c]);
                squares[c] = 0;
            }
            bytes[size++] = toByte(peak);
            bytes[size++] = toByte(Math.sqrt(loudest / filled));
            peak = 0;
            filled = 0;
        }
    }
}

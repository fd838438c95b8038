package org.mellowclass.core.measure;

import java.util.Arrays;
import java.util.OptionalDouble;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.SampleSink;

/**
 * Sample peak, RMS level, crest factor and DC offset of each channel, at the sound's own rate. Levels are dBFS where full
 * scale is an amplitude of 1: a sine at full scale has a peak of 0 and an RMS level of −3.01 dBFS. What has no value, as the
 * level of digital silence, is empty.
 */
public final class SampleStatistics implements SampleSink {

    private static final int SIZE = 0x7fffffff;

    private final float[] peaks;
    private final double[] sums;
    private final double[] squares;
    private long frames;

    public SampleStatistics(int channels) {
        peaks = new float[channels];
        sums = new double[channels];
        squares = new double[channels];
    }

    @Override
    public void accept(float[][] block, int count) {
        for (int c = 0; c < peaks.length; c++) {
            float peak = peaks[c];
            double sum = 0;
            double square = 0;
            for (int i = 0; i < count; i++) {
                float sample = block[c][i];
                float size = Math.abs(sample);
                peak = size > peak ? size : peak;
                sum += sample;
                square += (double) sample * sample;
            }
            peaks[c] = peak;
            sums[c] += sum;
            squares[c] += square;
        }
        frames += count;
    }

    public long frames() {
        return frames;
    }

    public OptionalDouble peakDbfs(int channel) {
        return level(peaks[channel]);
    }

    /** The peak of the highest channel. */
    public OptionalDouble peakDbfs() {
        return level(frames == 0 ? 0 : highest());
    }

    public OptionalDouble rmsDbfs(int channel) {
        return level(rms(channel));
    }

    /** Peak over RMS, in dB. */
    public OptionalDouble crestDb(int channel) {
        return level(peaks[channel] == 0 ? 0 : peaks[channel] / rms(channel));
    }

    /** The mean of a channel's samples, signed, full scale 1; empty where there are none. */
    public OptionalDouble dcOffset(int channel) {
        return frames == 0 ? OptionalDouble.empty() : OptionalDouble.of(sums[channel] / frames);
    }

    /** The DC offset of the channel where it is largest, signed. */
    public OptionalDouble dcOffset() {
        return frames == 0 ? OptionalDouble.empty() : Arrays.stream(sums).boxed()
                .max((a, b) -> Double.compare(Math.abs(a), Math.abs(b)))
                .map(sum -> OptionalDouble.of(sum / frames)).orElseGet(OptionalDouble::empty);
    }

    /** The largest amplitude of some samples. */
    public static float largest(float[] samples, int from, int to) {
        // bits of a float without its sign are in the order of its size, and whole numbers are compared faster
        int a = 0;
        int b = 0;
        int i = from;
        for (; i + 1 < to; i += 2) {
            a = Math.max(a, Float.floatToRawIntBits(samples[i]) & SIZE);
            b = Math.max(b, Float.floatToRawIntBits(samples[i + 1]) & SIZE);
        }
        if (i < to) {
            a = Math.max(a, Float.floatToRawIntBits(samples[i]) & SIZE);
        }
        return Float.intBitsToFloat(Math.max(a, b));
    }

    private double highest() {
        float most = 0;
        for (float peak : peaks) {
            most = Math.max(most, peak);
        }
        return most;
    }

    private double rms(int channel) {
        return frames == 0 ? 0 : Math.sqrt(squares[channel] / frames);
    }

    private static OptionalDouble level(double amplitude) {
        return amplitude > 0 ? OptionalDouble.of(Decibels.ofAmplitude(amplitude)) : OptionalDouble.empty();
    }
}

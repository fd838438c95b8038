package org.mellowclass.core.dsp;

import java.util.Arrays;

import org.jtransforms.fft.FloatFFT_1D;
import org.mellowclass.core.sound.Decibels;

/**
 * Takes down a noise whose spectrum is known. In short-time spectra (2048 samples, root Hann, three quarters overlapping) each line gets the gain
 * of the log-spectral amplitude estimator (Ephraim and Malah, Speech enhancement using a minimum mean-square error log-spectral amplitude
 * estimator, IEEE ASSP 33, 1985) with the decision-directed SNR of their paper of 1984, weighted by how likely speech is there (OM-LSA: Cohen
 * and Berdugo, Speech enhancement for non-stationary noise environments, Signal Processing 81, 2001). Where none is, the gain is the amount set:
 * what remains is the noise itself, only softer.
 */
public final class NoiseReducer implements Processor {

    public static final int SIZE = 2048;
    public static final int HOP = 512;
    public static final int BINS = SIZE / 2 + 1;

    /** Weight of the frame before in the SNR. */
    private static final float BEFORE = 0.96f;
    private static final float LEAST_SNR = (float) Decibels.toPower(-25);
    private static final float LEAST_POWER = 1e-20f;
    /** Cohen and Berdugo, table 1. */
    private static final float SMOOTHED = 0.7f;
    private static final int NEAR_BINS = 1;
    private static final int WIDE_BINS = 15;
    private static final double NO_SPEECH_SNR = Decibels.toPower(-10);
    private static final double SPEECH_SNR = Decibels.toPower(-5);
    private static final float LEAST_PRESENCE = 0.05f;
    private static final int SETTLE_HOPS = 24;

    private static final float[] WINDOW = window(1);
    /** Four root Hann windows squared, a hop apart, sum to two; and the transform back lacks its scale. */
    private static final float[] WINDOW_OUT = window(0.5 * 2 / SIZE);
    private static final LogTable HALF_E1 = new LogTable(1e-5, 64, v -> 0.5 * exponentialIntegral(v));
    private static final LogTable EXP_HALF_E1 = new LogTable(1e-5, 64, v -> Math.exp(0.5 * exponentialIntegral(v)));
    private static final LogTable EXP_MINUS = new LogTable(1e-5, 64, v -> Math.exp(-v));
    private static final LogTable LOG_WIENER = new LogTable(1e-6, 1e6, snr -> Math.log(snr / (1 + snr)));
    private static final LogTable PRESENCE = new LogTable(1e-3, 10, snr -> Math.log(snr / NO_SPEECH_SNR) / Math.log(SPEECH_SNR / NO_SPEECH_SNR));
    private static final float EXP_STEPS = 256;
    private static final float EXP_LEAST = -8;
    private static final float[] EXP = exponentials();

    private final FloatFFT_1D fft = Fourier.ofFloats(SIZE);
    private final Channel[] channels;
    private final float logLeastGain;
    private final float leastGain;
    private final float[] spectrum = new float[SIZE];
    private final float[] gains = new float[BINS];
    private final float[] posterior = new float[BINS];
    private final float[] snr = new float[BINS];
    /** The v of both papers: posterior SNR times the gain of Wiener. */
    private final float[] v = new float[BINS];
    private final float[] wiener = new float[BINS];
    private final float[] near = new float[BINS];
    private final float[] around = new float[BINS];
    private final float[] wide = new float[BINS + 1];
    private int inHop;

    /**
     * @param noise    mean power of each of {@link #BINS} lines by channel, as {@link #learn} finds it
     * @param amountDb how far the noise is taken down, above zero
     */
    public NoiseReducer(float[][] noise, double amountDb) {
        channels = new Channel[noise.length];
        for (int c = 0; c < noise.length; c++) {
            channels[c] = new Channel(noise[c]);
        }
        leastGain = (float) Decibels.toAmplitude(-amountDb);
        logLeastGain = (float) Math.log(leastGain);
    }

    /** What is kept of one channel from frame to frame. */
    private static final class Channel {
        final float[] overNoise = new float[BINS];
        final float[] input = new float[SIZE];
        final float[] output = new float[SIZE];
        final float[] before = new float[BINS];
        final float[] smoothed = new float[BINS];

        /** Samples without sound up to now. */
        int silent = SIZE;

        Channel(float[] noise) {
            for (int i = 0; i < BINS; i++) {
                overNoise[i] = 1 / Math.max(LEAST_POWER, noise[i]);
            }
        }
    }

    /**
     * The spectrum of a room: the mean of all stretches long enough for a window, and more in lines that come and go more than noise does
     * (whose deviation is its mean), as the talk of others does.
     *
     * @param rooms one channel each; together they are the room
     * @return power by line; all zero if none is long enough
     */
    public static float[] learn(Iterable<float[]> rooms) {
        FloatFFT_1D fft = Fourier.ofFloats(SIZE);
        double[] sums = new double[BINS];
        double[] squares = new double[BINS];
        float[] window = new float[SIZE];
        int count = 0;
        for (float[] room : rooms) {
            for (int start = 0; start + SIZE <= room.length; start += HOP) {
                for (int i = 0; i < SIZE; i++) {
                    window[i] = room[start + i] * WINDOW[i];
                }
                fft.realForward(window);
                for (int bin = 0; bin < BINS; bin++) {
                    double power = power(window, bin);
                    sums[bin] += power;
                    squares[bin] += power * power;
                }
                count++;
            }
        }
        float[] mean = new float[BINS];
        for (int bin = 0; bin < BINS && count > 0; bin++) {
            double average = sums[bin] / count;
            double deviation = Math.sqrt(Math.max(0, squares[bin] / count - average * average));
            mean[bin] = (float) Math.max(average, Math.sqrt(average * deviation));
        }
        return mean;
    }

    @Override
    public void process(float[][] block, int frames) {
        for (int done = 0; done < frames; ) {
            int count = Math.min(frames - done, HOP - inHop);
            for (int c = 0; c < channels.length; c++) {
                Channel channel = channels[c];
                System.arraycopy(block[c], done, channel.input, SIZE - HOP + inHop, count);
                System.arraycopy(channel.output, inHop, block[c], done, count);
            }
            inHop += count;
            done += count;
            if (inHop == HOP) {
                for (Channel channel : channels) {
                    next(channel);
                }
                inHop = 0;
            }
        }
    }

    private void next(Channel channel) {
        channel.silent = isSilent(channel.input) ? channel.silent + HOP : 0;
        if (channel.silent >= SIZE) {
            shift(channel);
            silence(channel);
            return;
        }
        for (int i = 0; i < SIZE; i++) {
            spectrum[i] = channel.input[i] * WINDOW[i];
        }
        fft.realForward(spectrum);
        findGains(channel);
        spectrum[0] *= gains[0];
        spectrum[1] *= gains[BINS - 1];
        for (int bin = 1; bin < BINS - 1; bin++) {
            spectrum[2 * bin] *= gains[bin];
            spectrum[2 * bin + 1] *= gains[bin];
        }
        fft.realInverse(spectrum, false);
        shift(channel);
        for (int i = 0; i < SIZE; i++) {
            channel.output[i] += spectrum[i] * WINDOW_OUT[i];
        }
    }

    private static boolean isSilent(float[] input) {
        for (int i = SIZE - HOP; i < SIZE; i++) {
            if (input[i] != 0) {
                return false;
            }
        }
        return true;
    }

    private static void shift(Channel channel) {
        System.arraycopy(channel.input, HOP, channel.input, 0, SIZE - HOP);
        System.arraycopy(channel.output, HOP, channel.output, 0, SIZE - HOP);
        Arrays.fill(channel.output, SIZE - HOP, SIZE, 0f);
    }

    /** What a window of digital silence leaves for the next. */
    private static void silence(Channel channel) {
        for (int bin = 0; bin < BINS; bin++) {
            float snr = Math.max(LEAST_SNR, BEFORE * channel.before[bin]);
            channel.smoothed[bin] = SMOOTHED * channel.smoothed[bin] + (1 - SMOOTHED) * snr;
            channel.before[bin] = 0;
        }
    }

    private void findGains(Channel channel) {
        findSnr(channel.overNoise, channel.before, channel.smoothed);
        wide[0] = 0;
        for (int bin = 0; bin < BINS; bin++) {
            wide[bin + 1] = wide[bin] + Math.min(1e3f, channel.smoothed[bin]);
        }
        float whole = presence(wide[BINS] / BINS);
        if (whole > 0) {
            means(NEAR_BINS, near);
            means(WIDE_BINS, around);
        }
        for (int bin = 0; bin < BINS; bin++) {
            int place = HALF_E1.index(v[bin]);
            float estimated = Math.min(1, wiener[bin] * EXP_HALF_E1.value(place));
            channel.before[bin] = estimated * estimated * posterior[bin];
            gains[bin] = leastGain;
            if (estimated > leastGain) {
                float likely = whole == 0 ? 0 : whole * presence(near[bin]) * presence(around[bin]);
                float presence = Math.max(LEAST_PRESENCE, likely);
                float speech = presence / (presence + (1 - presence) * (1 + snr[bin]) * EXP_MINUS.value(place));
                float logGain = Math.min(0, LOG_WIENER.at(snr[bin]) + HALF_E1.value(place));
                gains[bin] = exp(logLeastGain + speech * Math.max(0, logGain - logLeastGain));
            }
        }
    }

    /** In loops so plain that a processor does several bins at once. */
    private void findSnr(float[] overNoise, float[] before, float[] smoothed) {
        for (int bin = 1; bin < BINS - 1; bin++) {
            posterior[bin] = spectrum[2 * bin] * spectrum[2 * bin] + spectrum[2 * bin + 1] * spectrum[2 * bin + 1];
        }
        posterior[0] = power(spectrum, 0);
        posterior[BINS - 1] = power(spectrum, BINS - 1);
        for (int bin = 0; bin < BINS; bin++) {
            posterior[bin] *= overNoise[bin];
        }
        for (int bin = 0; bin < BINS; bin++) {
            snr[bin] = Math.max(LEAST_SNR, BEFORE * before[bin] + (1 - BEFORE) * Math.max(0, posterior[bin] - 1));
        }
        for (int bin = 0; bin < BINS; bin++) {
            wiener[bin] = snr[bin] / (1 + snr[bin]);
            v[bin] = posterior[bin] * wiener[bin];
            smoothed[bin] = SMOOTHED * smoothed[bin] + (1 - SMOOTHED) * snr[bin];
        }
    }

    /** Of each bin and as many on either side, as far as there are any. */
    private void means(int reach, float[] means) {
        int length = 2 * reach + 1;
        for (int bin = 0; bin < reach; bin++) {
            means[bin] = wide[bin + reach + 1] / (bin + reach + 1);
            means[BINS - 1 - bin] = (wide[BINS] - wide[BINS - 1 - bin - reach]) / (bin + reach + 1);
        }
        for (int bin = reach; bin < BINS - reach; bin++) {
            means[bin] = (wide[bin + reach + 1] - wide[bin - reach]) / length;
        }
    }

    private static float presence(float snr) {
        return Math.max(0, Math.min(1, PRESENCE.at(snr)));
    }

    private static float power(float[] spectrum, int bin) {
        if (bin == 0 || bin == BINS - 1) {
            float real = spectrum[bin == 0 ? 0 : 1];
            return real * real;
        }
        return spectrum[2 * bin] * spectrum[2 * bin] + spectrum[2 * bin + 1] * spectrum[2 * bin + 1];
    }

    /** Of a number from {@link #EXP_LEAST} to zero; straight between the steps of a table. */
    private static float exp(float number) {
        float place = (Math.max(EXP_LEAST, number) - EXP_LEAST) * EXP_STEPS;
        int index = (int) place;
        return EXP[index] + (place - index) * (EXP[index + 1] - EXP[index]);
    }

    private static float[] exponentials() {
        float[] values = new float[(int) (-EXP_LEAST * EXP_STEPS) + 2];
        for (int i = 0; i < values.length; i++) {
            values[i] = (float) Math.exp(EXP_LEAST + i / EXP_STEPS);
        }
        return values;
    }

    private static float[] window(double scale) {
        float[] window = new float[SIZE];
        for (int i = 0; i < SIZE; i++) {
            window[i] = (float) (scale * Math.sin(Math.PI * i / SIZE));
        }
        return window;
    }

    /** E1 by its series up to one, and by a continued fraction beyond (Abramowitz and Stegun, 5.1.11 and 5.1.22). */
    static double exponentialIntegral(double x) {
        if (x <= 1) {
            double sum = -0.57721566490153286 - Math.log(x);
            double term = 1;
            for (int k = 1; k < 30; k++) {
                term *= -x / k;
                sum -= term / k;
            }
            return sum;
        }
        double fraction = 0;
        for (int k = 60; k >= 1; k--) {
            fraction = k / (1 + k / (x + fraction));
        }
        return Math.exp(-x) / (x + fraction);
    }

    @Override
    public void reset() {
        for (Channel channel : channels) {
            Arrays.fill(channel.input, 0f);
            Arrays.fill(channel.output, 0f);
            Arrays.fill(channel.before, 0f);
            Arrays.fill(channel.smoothed, 0f);
            channel.silent = SIZE;
        }
        inHop = 0;
    }

    @Override
    public int latencyFrames() {
        return SIZE;
    }

    @Override
    public int settleFrames() {
        return SIZE + SETTLE_HOPS * HOP;
    }
}

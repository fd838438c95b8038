package org.mellowclass.core.dsp;

import java.util.Arrays;

import org.mellowclass.core.sound.Frames;

/**
 * Subtracts the harmonics of mains. Each harmonic's amplitude and phase are fitted by least squares in a Hann window of two seconds around every
 * frame (windows so long hold whole periods of all harmonics, so that each can be fitted alone), as far as the room between words has it, and what
 * was fitted is subtracted (after Brandt and Bitzer, Automatic detection of hum in audio signals, JAES 62, 2014). Unlike a notch it rings for no
 * word, and a hum that comes and goes is followed.
 */
public final class HumCanceller implements Processor {

    private static final int STEP = (int) Frames.ofMillis(10);
    private static final int REACH_STEPS = 100;
    private static final int STEPS = 2 * REACH_STEPS + 1;
    private static final double[] HANN = hann();
    /** More than this over what the room has is a voice that passes by. */
    private static final double MOST_OVER = 1.2;

    private final double[] amplitudes;
    private final Wave[] waves;
    private final Channel[] channels;
    private long steps;
    private int inStep;

    /** One harmonic over a step, from the step's first frame on: every step is this wave turned by one angle. */
    private static final class Wave {
        final double anglePerStep;
        final double[] cos = new double[STEP];
        final double[] sin = new double[STEP];

        Wave(double hertz) {
            double angle = 2 * Math.PI * hertz / Frames.RATE;
            anglePerStep = angle * STEP;
            for (int i = 0; i < STEP; i++) {
                cos[i] = Math.cos(angle * i);
                sin[i] = Math.sin(angle * i);
            }
        }
    }

    /** The sums of one channel's demodulated steps, by harmonic a ring of {@link #STEPS}, and the samples that wait for their window. */
    private static final class Channel {
        final double[][] real;
        final double[][] imaginary;
        final double[] waiting = new double[(REACH_STEPS + 1) * STEP];
        final double[] fitted;

        Channel(int harmonics) {
            real = new double[harmonics][STEPS];
            imaginary = new double[harmonics][STEPS];
            fitted = new double[2 * harmonics];
        }
    }

    /**
     * @param mainsHz    to 0.05 Hz
     * @param harmonics  which multiples are there
     * @param amplitudes of each, as the room has it
     */
    public HumCanceller(int channelCount, double mainsHz, int[] harmonics, double[] amplitudes) {
        waves = Arrays.stream(harmonics).mapToObj(harmonic -> new Wave(mainsHz * harmonic)).toArray(Wave[]::new);
        this.amplitudes = amplitudes.clone();
        channels = new Channel[channelCount];
        for (int c = 0; c < channelCount; c++) {
            channels[c] = new Channel(harmonics.length);
        }
    }

    private static double[] hann() {
        double[] window = new double[STEPS];
        double sum = 0;
        for (int i = 0; i < STEPS; i++) {
            window[i] = 1 + Math.cos(Math.PI * (i - REACH_STEPS) / (REACH_STEPS + 1));
            sum += window[i];
        }
        for (int i = 0; i < STEPS; i++) {
            window[i] /= sum;
        }
        return window;
    }

    @Override
    public void process(float[][] block, int frames) {
        for (int done = 0; done < frames; ) {
            int count = Math.min(frames - done, STEP - inStep);
            for (int c = 0; c < channels.length; c++) {
                part(channels[c], block[c], done, count);
            }
            inStep += count;
            done += count;
            if (inStep == STEP) {
                inStep = 0;
                steps++;
                for (Channel channel : channels) {
                    endStep(channel);
                }
            }
        }
    }

    /** Demodulates what comes, and gives what has waited without what was fitted around it. */
    private void part(Channel channel, float[] samples, int from, int count) {
        int slot = (int) (steps % STEPS);
        int wait = (int) (steps % (REACH_STEPS + 1)) * STEP + inStep;
        double[] late = Arrays.copyOfRange(channel.waiting, wait, wait + count);
        for (int i = 0; i < count; i++) {
            channel.waiting[wait + i] = samples[from + i];
        }
        for (int h = 0; h < waves.length; h++) {
            demodulate(waves[h], channel.waiting, wait, count, channel.real[h], channel.imaginary[h], slot);
            subtract(waves[h], channel.fitted[2 * h], channel.fitted[2 * h + 1], late);
        }
        for (int i = 0; i < count; i++) {
            samples[from + i] = (float) late[i];
        }
    }

    private void demodulate(Wave wave, double[] sound, int from, int count, double[] real, double[] imaginary, int slot) {
        double x = 0;
        double y = 0;
        for (int i = 0; i < count; i++) {
            x += sound[from + i] * wave.cos[inStep + i];
            y += sound[from + i] * wave.sin[inStep + i];
        }
        double c = Math.cos(wave.anglePerStep * steps);
        double s = Math.sin(wave.anglePerStep * steps);
        real[slot] += c * x - s * y;
        imaginary[slot] += s * x + c * y;
    }

    /** Takes what was fitted from sound that came a latency, which is whole steps, before. */
    private void subtract(Wave wave, double re, double im, double[] late) {
        double at = wave.anglePerStep * (steps - REACH_STEPS - 1);
        double ofCos = re * Math.cos(at) + im * Math.sin(at);
        double ofSin = im * Math.cos(at) - re * Math.sin(at);
        for (int i = 0; i < late.length; i++) {
            late[i] -= ofCos * wave.cos[inStep + i] + ofSin * wave.sin[inStep + i];
        }
    }

    /** Fits the step that is heard next: the window around it is whole now. */
    private void endStep(Channel channel) {
        int slot = (int) (steps % STEPS);
        for (int h = 0; h < waves.length; h++) {
            double re = 2.0 / STEP * windowed(channel.real[h], slot);
            double im = 2.0 / STEP * windowed(channel.imaginary[h], slot);
            double amplitude = Math.hypot(re, im);
            double most = MOST_OVER * amplitudes[h];
            double part = amplitude > most ? most / amplitude : 1;
            channel.fitted[2 * h] = part * re;
            channel.fitted[2 * h + 1] = part * im;
            channel.real[h][slot] = 0;
            channel.imaginary[h][slot] = 0;
        }
    }

    /** The weighted sum of a ring that begins at a slot. */
    private static double windowed(double[] ring, int slot) {
        int beforeEnd = STEPS - slot;
        double sum = 0;
        for (int i = 0; i < beforeEnd; i++) {
            sum += HANN[i] * ring[slot + i];
        }
        for (int i = beforeEnd; i < STEPS; i++) {
            sum += HANN[i] * ring[i - beforeEnd];
        }
        return sum;
    }

    @Override
    public void reset() {
        for (Channel channel : channels) {
            for (int h = 0; h < waves.length; h++) {
                Arrays.fill(channel.real[h], 0);
                Arrays.fill(channel.imaginary[h], 0);
            }
            Arrays.fill(channel.waiting, 0);
            Arrays.fill(channel.fitted, 0);
        }
        steps = 0;
        inStep = 0;
    }

    @Override
    public int latencyFrames() {
        return (REACH_STEPS + 1) * STEP;
    }

    @Override
    public int settleFrames() {
        return 2 * latencyFrames();
    }
}

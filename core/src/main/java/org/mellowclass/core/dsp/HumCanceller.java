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

    private final double mainsHz;
    private final int[] harmonics;
    private final double[] amplitudes;
    private final Channel[] channels;
    private long steps;
    private int inStep;
    private final double[] cos;
    private final double[] sin;

    /** The sums of one channel's demodulated steps, by harmonic a ring of {@link #STEPS}, and the samples that wait for their window. */
    private static final class Channel {
        final double[][] real;
        final double[][] imaginary;
        final float[] waiting = new float[(REACH_STEPS + 1) * STEP];
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
        this.mainsHz = mainsHz;
        this.harmonics = harmonics.clone();
        this.amplitudes = amplitudes.clone();
        channels = new Channel[channelCount];
        for (int c = 0; c < channelCount; c++) {
            channels[c] = new Channel(harmonics.length);
        }
        cos = new double[harmonics.length];
        sin = new double[harmonics.length];
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
        long frame = steps * STEP + inStep;
        int slot = (int) (steps % STEPS);
        int wait = (int) (steps % (REACH_STEPS + 1)) * STEP + inStep;
        float[] late = Arrays.copyOfRange(channel.waiting, wait, wait + count);
        System.arraycopy(samples, from, channel.waiting, wait, count);
        for (int h = 0; h < harmonics.length; h++) {
            double angle = 2 * Math.PI * mainsHz * harmonics[h] / Frames.RATE;
            double turnCos = Math.cos(angle);
            double turnSin = Math.sin(angle);
            double at = angle * frame;
            double c = Math.cos(at);
            double s = Math.sin(at);
            double lateAt = at - angle * latencyFrames();
            double lc = Math.cos(lateAt);
            double ls = Math.sin(lateAt);
            double re = channel.fitted[2 * h];
            double im = channel.fitted[2 * h + 1];
            double real = 0;
            double imaginary = 0;
            for (int i = 0; i < count; i++) {
                double x = samples[from + i];
                real += x * c;
                imaginary += x * s;
                double next = c * turnCos - s * turnSin;
                s = s * turnCos + c * turnSin;
                c = next;
                late[i] -= (float) (re * lc + im * ls);
                double lateNext = lc * turnCos - ls * turnSin;
                ls = ls * turnCos + lc * turnSin;
                lc = lateNext;
            }
            channel.real[h][slot] += real;
            channel.imaginary[h][slot] += imaginary;
        }
        System.arraycopy(late, 0, samples, from, count);
    }

    /** Fits the step that is heard next: the window around it is whole now. */
    private void endStep(Channel channel) {
        int slot = (int) (steps % STEPS);
        for (int h = 0; h < harmonics.length; h++) {
            double re = 0;
            double im = 0;
            for (int i = 0; i < STEPS; i++) {
                int at = (slot + i) % STEPS;
                re += HANN[i] * channel.real[h][at];
                im += HANN[i] * channel.imaginary[h][at];
            }
            re *= 2.0 / STEP;
            im *= 2.0 / STEP;
            double amplitude = Math.hypot(re, im);
            double most = MOST_OVER * amplitudes[h];
            double part = amplitude > most ? most / amplitude : 1;
            channel.fitted[2 * h] = part * re;
            channel.fitted[2 * h + 1] = part * im;
            channel.real[h][slot] = 0;
            channel.imaginary[h][slot] = 0;
        }
    }

    @Override
    public void reset() {
        for (Channel channel : channels) {
            for (int h = 0; h < harmonics.length; h++) {
                Arrays.fill(channel.real[h], 0);
                Arrays.fill(channel.imaginary[h], 0);
            }
            Arrays.fill(channel.waiting, 0f);
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

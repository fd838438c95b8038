package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

import org.jtransforms.fft.FloatFFT_1D;
import org.mellowclass.core.dsp.Fourier;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;

/**
 * Finds the hum of mains in the room between words: the mean power spectrum of Hann windows of two seconds (half
 * overlapping), in which harmonics of 50 or 60 Hz stand 10 dB over the median within 15 Hz of them. 300 Hz and 600 Hz belong
 * to both and do not vote.
 */
public final class HumFinder {

    /** Shorter stretches say nothing. */
    public static final int WINDOW_FRAMES = 2 * Frames.RATE;

    private static final int[] MAINS_HZ = {50, 60};
    private static final int HIGHEST_HZ = 900;
    private static final int SHARED_HZ = 300;
    private static final double BINS_A_HZ = (double) WINDOW_FRAMES / Frames.RATE;
    private static final int NEAR_BINS = (int) (15 * BINS_A_HZ);
    /** A Hann window spreads a tone over the bins beside it. */
    private static final int TONE_BINS = 2;
    /** Behind the last bin that is looked at. */
    static final int HIGHEST_BIN = (int) (HIGHEST_HZ * BINS_A_HZ) + NEAR_BINS + 1;
    private static final double STANDS_OUT_DB = 10;
    private static final int FEWEST_HARMONICS = 2;

    private HumFinder() {
    }

    /**
     * @param mainsHz   50 or 60
     * @param exactHz   the frequency as it is, from the places of all harmonics between the bins, to some hundredths
     * @param harmonics those that stand out, in order
     * @param levelDbfs their sum, dBFS RMS where full scale is an amplitude of one
     */
    public record Hum(int mainsHz, double exactHz, List<Harmonic> harmonics, double levelDbfs) {
        public Hum {
            harmonics = List.copyOf(harmonics);
        }
    }

    /** @param amplitude of its sine */
    public record Harmonic(int multiple, double amplitude) {
    }

    /**
     * @param room one channel at 48 kHz in which nobody speaks
     * @return empty if fewer than two harmonics stand out, or if it is shorter than two seconds
     */
    public static Optional<Hum> find(float[] room) {
        if (room.length < WINDOW_FRAMES) {
            return Optional.empty();
        }
        return inSpectrum(spectrum(room));
    }

    /** @param powers mean power by bins of half a hertz, up to {@link #HIGHEST_BIN} at least; the bins of a sine sum to its mean square */
    static Optional<Hum> inSpectrum(double[] powers) {
        Hum best = null;
        for (int mains : MAINS_HZ) {
            List<Harmonic> harmonics = new ArrayList<>();
            double sum = 0;
            double places = 0;
            double weights = 0;
            for (int hz = mains; hz <= HIGHEST_HZ; hz += mains) {
                double power = powerAt(powers, hz);
                if (hz % SHARED_HZ != 0 && Decibels.ofPower(power / median(powers, hz)) >= STANDS_OUT_DB) {
                    int multiple = hz / mains;
                    double tone = tonePower(powers, hz);
                    harmonics.add(new Harmonic(multiple, Math.sqrt(2 * tone)));
                    sum += tone;
                    // the same shift between bins tells more of the mains the higher the harmonic is
                    places += tone * multiple * peakHz(powers, hz);
                    weights += tone * multiple * multiple;
                }
            }
            if (harmonics.size() >= FEWEST_HARMONICS && (best == null || harmonics.size() > best.harmonics.size())) {
                best = new Hum(mains, places / weights, harmonics, Decibels.ofPower(sum));
            }
        }
        return Optional.ofNullable(best);
    }

    /** Where the peak near a frequency lies between the bins: of a Hann window, nearly a parabola through the logarithms of three. */
    private static double peakHz(double[] powers, int hz) {
        int centre = (int) Math.round(hz * BINS_A_HZ);
        int top = centre;
        for (int bin = centre - 1; bin <= centre + 1; bin++) {
            top = powers[bin] > powers[top] ? bin : top;
        }
        double before = Math.log(Math.max(Double.MIN_NORMAL, powers[top - 1]));
        double at = Math.log(Math.max(Double.MIN_NORMAL, powers[top]));
        double behind = Math.log(Math.max(Double.MIN_NORMAL, powers[top + 1]));
        double bend = before - 2 * at + behind;
        return (top + (bend < 0 ? 0.5 * (before - behind) / bend : 0)) / BINS_A_HZ;
    }

    /** The mean power of each bin, scaled so that the bins of a sine sum to its mean square. */
    private static double[] spectrum(float[] room) {
        FloatFFT_1D fft = Fourier.ofFloats(WINDOW_FRAMES);
        double[] powers = new double[WINDOW_FRAMES / 2];
        float[] window = new float[WINDOW_FRAMES];
        int windows = 0;
        for (int start = 0; start + WINDOW_FRAMES <= room.length; start += WINDOW_FRAMES / 2) {
            for (int i = 0; i < WINDOW_FRAMES; i++) {
                window[i] = (float) (room[start + i] * 0.5 * (1 - Math.cos(2 * Math.PI * i / WINDOW_FRAMES)));
            }
            fft.realForward(window);
            for (int bin = 1; bin < powers.length; bin++) {
                powers[bin] += (double) window[2 * bin] * window[2 * bin] + (double) window[2 * bin + 1] * window[2 * bin + 1];
            }
            windows++;
        }
        // one-sided power over N times the window's sum of squares, which is 3/8 N
        double scale = 2.0 / (0.375 * WINDOW_FRAMES * (double) WINDOW_FRAMES * windows);
        for (int bin = 0; bin < powers.length; bin++) {
            powers[bin] *= scale;
        }
        return powers;
    }

    private static double powerAt(double[] powers, int hz) {
        int centre = (int) Math.round(hz * BINS_A_HZ);
        return Math.max(powers[centre - 1], Math.max(powers[centre], powers[centre + 1]));
    }

    private static double tonePower(double[] powers, int hz) {
        int centre = (int) Math.round(hz * BINS_A_HZ);
        double sum = 0;
        for (int bin = centre - TONE_BINS; bin <= centre + TONE_BINS; bin++) {
            sum += powers[bin];
        }
        return sum;
    }

    private static double median(double[] powers, int hz) {
        int centre = (int) Math.round(hz * BINS_A_HZ);
        double[] near = Arrays.copyOfRange(powers, centre - NEAR_BINS, centre + NEAR_BINS + 1);
        Arrays.sort(near);
        return Math.max(near[near.length / 2], Double.MIN_NORMAL);
    }
}

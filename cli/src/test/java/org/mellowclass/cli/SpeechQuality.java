package org.mellowclass.cli;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

import org.jtransforms.fft.DoubleFFT_1D;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.Measurement;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;

/** How near cleaned speech comes to what was spoken. */
final class SpeechQuality {

    private static final int FRAME = (int) Frames.ofMillis(20);
    private static final double LEAST_SEGMENT_DB = -10;
    private static final double MOST_SEGMENT_DB = 35;
    private static final double ACTIVE_UNDER_MEAN_DB = 20;
    private static final int WINDOW = 1024;
    private static final double FLOOR_UNDER_MAXIMUM_DB = 50;

    private SpeechQuality() {
    }

    static double lufs(float[] sound) throws IOException {
        return Measurement.of(Signal.of(Frames.RATE, sound).stream(), Search.FULL_SCALE_ONLY).loudness().integrated().orElseThrow();
    }

    static double powerDb(float[] sound, List<Span> spans) {
        double sum = 0;
        long count = 0;
        for (Span span : spans) {
            for (int i = (int) span.startFrame(); i < span.endFrame(); i++) {
                sum += (double) sound[i] * sound[i];
                count++;
            }
        }
        return Decibels.ofPower(sum / count);
    }

    /** Of active frames of 20 ms: those within 20 dB of the mean power of all. */
    static double segmentalSnr(float[] clean, float[] sound) {
        double mean = powerDb(clean, List.of(new Span(0, clean.length)));
        double sum = 0;
        int count = 0;
        for (int at = 0; at + FRAME <= clean.length; at += FRAME) {
            double signal = 0;
            double error = 1e-12;
            for (int i = at; i < at + FRAME; i++) {
                signal += (double) clean[i] * clean[i];
                error += (double) (sound[i] - clean[i]) * (sound[i] - clean[i]);
            }
            if (signal > 0 && Decibels.ofPower(signal / FRAME) > mean - ACTIVE_UNDER_MEAN_DB) {
                sum += Math.max(LEAST_SEGMENT_DB, Math.min(MOST_SEGMENT_DB, Decibels.ofPower(signal / error)));
                count++;
            }
        }
        return sum / count;
    }

    /** Of the powers of spectral lines inside spans, the mean over lines: what comes and goes by itself raises it. */
    static double kurtosis(float[] sound, List<Span> spans) {
        int size = 512;
        List<double[]> windows = new ArrayList<>();
        for (Span span : spans) {
            // the voice fades in and out through the noise
            for (long start = span.startFrame() + Frames.ofMillis(60); start + size <= span.endFrame() - Frames.ofMillis(60); start += size) {
                windows.add(powers(sound, (int) start, size));
            }
        }
        double all = 0;
        int lines = 0;
        for (int line = 8; line < size / 2; line += 5) {
            double second = 0;
            double fourth = 0;
            for (double[] powers : windows) {
                second += powers[line];
                fourth += powers[line] * powers[line];
            }
            all += fourth * windows.size() / (second * second);
            lines++;
        }
        return all / lines;
    }

    /** The power of each spectral line below half the rate, under a Hann window. */
    static double[] powers(float[] sound, int start, int size) {
        double[] window = new double[size];
        for (int i = 0; i < size; i++) {
            window[i] = sound[start + i] * (0.5 - 0.5 * Math.cos(2 * Math.PI * i / size));
        }
        new DoubleFFT_1D(size).realForward(window);
        double[] powers = new double[size / 2];
        powers[0] = window[0] * window[0];
        for (int line = 1; line < size / 2; line++) {
            powers[line] = window[2 * line] * window[2 * line] + window[2 * line + 1] * window[2 * line + 1];
        }
        return powers;
    }

    /**
     * The log-spectral distance in dB: over windows the mean of the root mean square over lines; both spectra are floored 50 dB under the maximum of
     * the clean one.
     */
    static double logSpectralDistance(float[] clean, float[] sound) {
        List<double[]> wanted = spectra(clean);
        List<double[]> is = spectra(sound);
        double most = wanted.stream().flatMapToDouble(Arrays::stream).max().orElseThrow();
        double sum = 0;
        // a tool may leave out the last window
        int count = Math.min(wanted.size(), is.size());
        for (int i = 0; i < count; i++) {
            double squares = 0;
            for (int line = 0; line < WINDOW / 2; line++) {
                double difference = Math.max(wanted.get(i)[line], most - FLOOR_UNDER_MAXIMUM_DB) - Math.max(is.get(i)[line], most - FLOOR_UNDER_MAXIMUM_DB);
                squares += difference * difference;
            }
            sum += Math.sqrt(squares / (WINDOW / 2));
        }
        return sum / count;
    }

    private static List<double[]> spectra(float[] sound) {
        List<double[]> spectra = new ArrayList<>();
        for (int start = 0; start + WINDOW <= sound.length; start += WINDOW / 2) {
            double[] db = Arrays.stream(powers(sound, start, WINDOW)).map(power -> Decibels.ofPower(Math.max(1e-20, power))).toArray();
            // what lies at 0 Hz is not compared
            db[0] = 0;
            spectra.add(db);
        }
        return spectra;
    }
}

package org.mellowclass.core.measure;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;

import org.jtransforms.fft.DoubleFFT_1D;
import org.jtransforms.fft.FloatFFT_1D;
import org.mellowclass.core.dsp.Fourier;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;

/**
 * Lines two recordings of one conversation up. First the onsets of both (rises of the level in steps of 10 ms) are
 * correlated over their whole lengths; then, in windows spread over the overlap, generalised cross-correlation with phase
 * transform (Knapp and Carter 1976) finds each window's lag to the sample. A straight line through the lags gives the offset
 * and the drift of the clocks.
 *
 * <p>A moment {@code t} of B is the moment {@code offset + t · (1 + drift)} of A: a positive offset means that B starts later.
 */
public final class LineUp {

    /** No drift is stated where less is common to both. */
    public static final double DRIFT_NEEDS_SECONDS = 60;

    private static final int STEP = Frames.RATE / 100;
    private static final int CANDIDATES = 4;
    /** Long windows stand out of more that is not common; in short ones clocks that run apart smear less. */
    private static final int[] WINDOWS = {1 << 18, 1 << 16};
    private static final int MOST_WINDOWS = 14;
    private static final int SEARCH = (int) Frames.ofMillis(60);
    /** No two clocks that work are further apart. */
    private static final double MOST_DRIFT = 300e-6;
    private static final double LOWEST_HZ = 120;
    private static final double HIGHEST_HZ = 7000;
    /** A peak stands out if it is so many times the root mean square of everything around it. */
    private static final double STANDS_OUT = 9;
    private static final long AGREES = Frames.ofMillis(2);
    private static final long SHORTEST_OVERLAP = Frames.ofSeconds(4);
    private static final double ENOUGH_CONFIDENCE = 0.5;
    private static final double SMALLEST = 1e-12;

    private LineUp() {
    }

    /** Why two recordings are not lined up. */
    public enum Reason { TOO_SHORT, NOTHING_COMMON }

    /**
     * @param offsetSeconds how much later B starts; meaningless with a reason
     * @param driftPpm      how much faster A's clock counts, in millionths; empty for less than a minute in common
     * @param confidence    the share of the windows that agree, from 0 to 1
     * @param reason        why they are not lined up; null if they are
     */
    public record Result(double offsetSeconds, OptionalDouble driftPpm, double confidence, Reason reason) {

        public boolean matched() {
            return reason == null;
        }
    }

    /** Lines up two sounds at 48 kHz; the means of their channels count. Reads both once, and some windows again. */
    public static Result of(RandomAccessSound a, RandomAccessSound b) throws IOException {
        if (Math.min(a.frames(), b.frames()) < SHORTEST_OVERLAP) {
            return new Result(0, OptionalDouble.empty(), 0, Reason.TOO_SHORT);
        }
        Result best = new Result(0, OptionalDouble.empty(), 0, Reason.NOTHING_COMMON);
        for (int lag : candidates(onsets(a), onsets(b))) {
            for (int window : WINDOWS) {
                Result result = refined(a, b, (long) lag * STEP, window);
                if (result.confidence > best.confidence) {
                    best = result;
                }
            }
        }
        return best.confidence >= ENOUGH_CONFIDENCE ? best
                : new Result(0, OptionalDouble.empty(), best.confidence, Reason.NOTHING_COMMON);
    }

    /** How far the level rises in each step, without the mean. */
    private static double[] onsets(RandomAccessSound sound) throws IOException {
        int steps = (int) (sound.frames() / STEP);
        double[] onsets = new double[steps];
        float[][] block = new float[sound.channels()][STEP];
        double before = Double.NaN;
        double mean = 0;
        for (int i = 0; i < steps; i++) {
            sound.readAt((long) i * STEP, block, 0, STEP);
            double energy = 0;
            for (int s = 0; s < STEP; s++) {
                float sample = 0;
                for (float[] channel : block) {
                    sample += channel[s];
                }
                energy += (double) sample * sample;
            }
            double level = Math.log10(energy / STEP + 1e-9);
            onsets[i] = Double.isNaN(before) ? 0 : Math.max(0, level - before);
            before = level;
            mean += onsets[i] / steps;
        }
        for (int i = 0; i < steps; i++) {
            onsets[i] -= mean;
        }
        return onsets;
    }

    /** The lags (in steps) at which the onsets fit best, well apart from each other. */
    private static List<Integer> candidates(double[] a, double[] b) {
        int size = Integer.highestOneBit(a.length + b.length) << 1;
        DoubleFFT_1D fft = Fourier.ofDoubles(size);
        double[] spectrumA = new double[2 * size];
        double[] spectrumB = new double[2 * size];
        System.arraycopy(a, 0, spectrumA, 0, a.length);
        System.arraycopy(b, 0, spectrumB, 0, b.length);
        fft.realForwardFull(spectrumA);
        fft.realForwardFull(spectrumB);
        for (int i = 0; i < size; i++) {
            double re = spectrumA[2 * i] * spectrumB[2 * i] + spectrumA[2 * i + 1] * spectrumB[2 * i + 1];
            double im = spectrumA[2 * i + 1] * spectrumB[2 * i] - spectrumA[2 * i] * spectrumB[2 * i + 1];
            spectrumA[2 * i] = re;
            spectrumA[2 * i + 1] = im;
        }
        fft.complexInverse(spectrumA, true);
        List<Integer> lags = new ArrayList<>();
        for (int n = 0; n < CANDIDATES; n++) {
            int best = Integer.MIN_VALUE;
            double most = Double.NEGATIVE_INFINITY;
            for (int lag = -b.length + 1; lag < a.length; lag++) {
                double value = spectrumA[2 * Math.floorMod(lag, size)];
                int here = lag;
                if (value > most && lags.stream().noneMatch(known -> Math.abs(known - here) < 10)) {
                    most = value;
                    best = lag;
                }
            }
            lags.add(best);
        }
        return lags;
    }

    private static Result refined(RandomAccessSound a, RandomAccessSound b, long lag, int window) throws IOException {
        long start = Math.max(0, -lag);
        long end = Math.min(b.frames(), a.frames() - lag);
        if (end - start < SHORTEST_OVERLAP) {
            return new Result(0, OptionalDouble.empty(), 0, Reason.TOO_SHORT);
        }
        int windows = (int) Math.max(3, Math.min(MOST_WINDOWS, (end - start) / window));
        List<double[]> points = new ArrayList<>();
        for (int w = 0; w < windows; w++) {
            long at = start + (end - start - Math.min(window, end - start)) * w / Math.max(1, windows - 1);
            // where the clocks run apart, windows far from the middle lie further from the common lag
            int search = SEARCH + (int) (MOST_DRIFT * Math.abs(at - (start + end) / 2));
            double found = windowLag(a, b, at, lag, search, window);
            if (!Double.isNaN(found)) {
                points.add(new double[] {at + Math.min(window, end - start) / 2.0, found});
            }
        }
        return fitted(points, windows, end - start);
    }

    /** The lag of B's window in A; NaN if none stands out. */
    private static double windowLag(RandomAccessSound a, RandomAccessSound b, long at, long lag, int search, int window) throws IOException {
        int size = Math.max(2 * window, Integer.highestOneBit(window + 2 * search) << 1);
        FloatFFT_1D fft = Fourier.ofFloats(size);
        float[] ofA = spectrum(a, at + lag - search, window + 2 * search, size, fft);
        float[] ofB = spectrum(b, at, window, size, fft);
        int low = (int) (LOWEST_HZ * size / Frames.RATE);
        int high = (int) (HIGHEST_HZ * size / Frames.RATE);
        float[] cross = new float[size];
        for (int bin = low; bin < high; bin++) {
            double re = (double) ofA[2 * bin] * ofB[2 * bin] + (double) ofA[2 * bin + 1] * ofB[2 * bin + 1];
            double im = (double) ofA[2 * bin + 1] * ofB[2 * bin] - (double) ofA[2 * bin] * ofB[2 * bin + 1];
            double size2 = Math.hypot(re, im) + SMALLEST;
            cross[2 * bin] = (float) (re / size2);
            cross[2 * bin + 1] = (float) (im / size2);
        }
        fft.realInverse(cross, true);
        int best = 0;
        double squares = 0;
        for (int i = 0; i <= 2 * search; i++) {
            squares += (double) cross[i] * cross[i];
            // of a microphone whose polarity is the other way round, the peak points down
            best = Math.abs(cross[i]) > Math.abs(cross[best]) ? i : best;
        }
        double rms = Math.sqrt(squares / (2 * search + 1));
        return Math.abs(cross[best]) > STANDS_OUT * rms ? lag - search + best : Double.NaN;
    }

    private static float[] spectrum(RandomAccessSound sound, long from, int frames, int size, FloatFFT_1D fft) throws IOException {
        float[][] read = new float[sound.channels()][frames];
        sound.readAt(from, read, 0, frames);
        float[] mono = new float[size];
        for (float[] channel : read) {
            for (int i = 0; i < Math.min(frames, size); i++) {
                mono[i] += channel[i];
            }
        }
        fft.realForward(mono);
        return mono;
    }

    /** The straight line on which most points agree; through two points each, then by least squares over those that agree. */
    private static Result fitted(List<double[]> points, int windows, long overlap) {
        List<double[]> best = List.of();
        for (double[] one : points) {
            for (double[] other : points) {
                double slope = other[0] == one[0] ? 0 : (other[1] - one[1]) / (other[0] - one[0]);
                if (Math.abs(slope) <= MOST_DRIFT) {
                    List<double[]> agreeing = points.stream()
                            .filter(point -> Math.abs(point[1] - one[1] - slope * (point[0] - one[0])) <= AGREES).toList();
                    best = agreeing.size() > best.size() ? agreeing : best;
                }
            }
        }
        double confidence = (double) best.size() / windows;
        if (best.size() < 2) {
            return new Result(0, OptionalDouble.empty(), confidence, Reason.NOTHING_COMMON);
        }
        double meanT = best.stream().mapToDouble(point -> point[0]).average().orElseThrow();
        double meanLag = best.stream().mapToDouble(point -> point[1]).average().orElseThrow();
        if (overlap < DRIFT_NEEDS_SECONDS * Frames.RATE) {
            return new Result(meanLag / Frames.RATE, OptionalDouble.empty(), confidence, null);
        }
        double tt = best.stream().mapToDouble(point -> (point[0] - meanT) * (point[0] - meanT)).sum();
        double tl = best.stream().mapToDouble(point -> (point[0] - meanT) * (point[1] - meanLag)).sum();
        double slope = tt == 0 ? 0 : tl / tt;
        if (Math.abs(slope) > MOST_DRIFT) {
            return new Result(0, OptionalDouble.empty(), 0, Reason.NOTHING_COMMON);
        }
        return new Result((meanLag - slope * meanT) / Frames.RATE, OptionalDouble.of(slope * 1e6), confidence, null);
    }
}

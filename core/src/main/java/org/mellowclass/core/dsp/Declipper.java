package org.mellowclass.core.dsp;

import java.io.IOException;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/**
 * Draws the tops that clipping cut off anew, by least-squares autoregressive interpolation (A. J. E. M. Janssen, R. N. J.
 * Veldhuis and L. B. Vries, "Adaptive interpolation of discrete-time signals that can be modeled as autoregressive
 * processes", IEEE Trans. ASSP 34(2), 1986), which is told that a top reaches at least as far as what was left of it. The
 * repaired sound may reach over full scale; nothing outside of the places it is given is touched.
 */
public final class Declipper implements SampleSource {

    /** Longer tops are not guessed. */
    private static final int LONGEST_TOP = (int) Frames.ofMillis(20);
    private static final int CONTEXT = 1024;
    private static final int BLOCK = 2048;
    private static final int WINDOW = CONTEXT + BLOCK + CONTEXT;
    private static final int ORDER = 40;
    private static final int ROUNDS = 3;
    /** Resampling ripples a flat top by less than this. */
    private static final double RIPPLED_TOP = 0.92;
    /** A top that was never resampled is flat: so many samples are its very height, but for the steps of their bits. */
    private static final double FLAT_TOP = 0.998;
    private static final int FLAT = 3;
    private static final double DAMPING = 1e-9;
    private static final double[] HANN = IntStream.range(0, WINDOW).mapToDouble(i -> 0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / WINDOW)).toArray();

    private final SampleSource source;
    private final List<Span> places;
    /** {@code held[c][CONTEXT]} is the next frame to hand out. */
    private final float[][] held;
    /** The same as it came: what is clipped is found in it. */
    private final float[][] asItCame;
    /** Of which channels a flat top has been seen: they were never resampled, and nothing else in them is a top. */
    private final boolean[] flat;
    private long position;
    private int given = BLOCK;
    private int ready;
    private long inputFrames;
    private boolean ended;

    private Declipper(SampleSource source, List<Span> places) {
        this.source = source;
        this.places = places;
        this.held = new float[source.channels()][WINDOW];
        this.asItCame = new float[source.channels()][WINDOW];
        this.flat = new boolean[source.channels()];
    }

    /**
     * A sound with its clipped places repaired. Closing the result closes the source.
     *
     * @param places where it is clipped, in order, in frames of the source
     */
    public static SampleSource of(SampleSource source, List<Span> places) throws IOException {
        Declipper declipper = new Declipper(source, List.copyOf(places));
        declipper.fill(CONTEXT + BLOCK);
        declipper.position = -BLOCK;
        return declipper;
    }

    @Override
    public int channels() {
        return source.channels();
    }

    @Override
    public int sampleRate() {
        return source.sampleRate();
    }

    @Override
    public int read(float[][] into, int offset, int frames) throws IOException {
        if (given == BLOCK) {
            advance();
        }
        int count = Math.min(frames, ready - given);
        for (int c = 0; c < held.length; c++) {
            System.arraycopy(held[c], CONTEXT + given, into[c], offset, count);
        }
        given += count;
        return count;
    }

    @Override
    public void close() throws IOException {
        source.close();
    }

    /** Moves on by a block, and repairs the tops that begin in it; those of the block before are repaired already. */
    private void advance() throws IOException {
        for (int c = 0; c < held.length; c++) {
            System.arraycopy(held[c], BLOCK, held[c], 0, WINDOW - BLOCK);
            System.arraycopy(asItCame[c], BLOCK, asItCame[c], 0, WINDOW - BLOCK);
        }
        fill(WINDOW - BLOCK);
        position += BLOCK;
        given = 0;
        ready = (int) Math.max(0, Math.min(BLOCK, inputFrames - position));
        for (int c = 0; c < held.length; c++) {
            BitSet tops = tops(asItCame[c], c);
            if (!tops.isEmpty()) {
                repair(held[c], tops);
            }
        }
    }

    private void fill(int from) throws IOException {
        int at = from;
        while (!ended && at < WINDOW) {
            int read = source.read(held, at, WINDOW - at);
            ended = read <= 0;
            at += Math.max(0, read);
            inputFrames += Math.max(0, read);
        }
        for (int c = 0; c < held.length; c++) {
            Arrays.fill(held[c], at, WINDOW, 0f);
            System.arraycopy(held[c], from, asItCame[c], from, WINDOW - from);
        }
    }

    /** The samples of the window that belong to tops which begin in this block. */
    private BitSet tops(float[] channel, int c) {
        BitSet tops = new BitSet(WINDOW);
        long windowStart = position - CONTEXT;
        for (Span place : places) {
            int from = (int) Math.max(CONTEXT, place.startFrame() - windowStart);
            int to = (int) Math.min(WINDOW, place.endFrame() - windowStart);
            if (from >= to || from >= CONTEXT + BLOCK) {
                continue;
            }
            float most = 0;
            for (int i = from; i < to; i++) {
                most = Math.max(most, Math.abs(channel[i]));
            }
            boolean flatHere = isFlat(channel, from, to, most);
            flat[c] |= flatHere;
            if (flat[c] && !flatHere) {
                continue;
            }
            double top = most * (flatHere ? FLAT_TOP : RIPPLED_TOP);
            for (int i = from; i < to; ) {
                int end = i;
                while (end < to && channel[end] * Math.signum(channel[i]) >= top) {
                    end++;
                }
                boolean fromBefore = i == CONTEXT && channel[i - 1] * Math.signum(channel[i]) >= top;
                if (end > i && i < CONTEXT + BLOCK && end - i <= LONGEST_TOP && !fromBefore) {
                    tops.set(i, end);
                }
                i = Math.max(end, i + 1);
            }
        }
        return tops;
    }

    private static boolean isFlat(float[] channel, int from, int to, float most) {
        int equal = 0;
        for (int i = from; i < to && equal < FLAT; i++) {
            equal += Math.abs(channel[i]) == most ? 1 : 0;
        }
        return equal == FLAT;
    }

    private static void repair(float[] channel, BitSet tops) {
        double[] samples = new double[WINDOW];
        for (int i = 0; i < WINDOW; i++) {
            samples[i] = channel[i];
        }
        int[] unknown = tops.stream().toArray();
        for (int round = 0; round < ROUNDS; round++) {
            double[] predictor = predictor(samples);
            double[] solved = solve(samples, unknown, correlated(predictor));
            for (int u = 0; u < unknown.length; u++) {
                int i = unknown[u];
                boolean further = solved[u] * Math.signum(channel[i]) > Math.abs(channel[i]);
                samples[i] = further ? solved[u] : channel[i];
            }
        }
        for (int i : unknown) {
            channel[i] = (float) samples[i];
        }
    }

    /** The error filter 1, a1 … ap of the window, by the autocorrelation method (Hann; Levinson and Durbin). */
    private static double[] predictor(double[] window) {
        double[] samples = new double[window.length];
        for (int i = 0; i < window.length; i++) {
            samples[i] = window[i] * HANN[i];
        }
        double[] r = new double[ORDER + 1];
        for (int lag = 0; lag <= ORDER; lag++) {
            for (int i = lag; i < samples.length; i++) {
                r[lag] += samples[i] * samples[i - lag];
            }
        }
        double error = r[0] * (1 + DAMPING) + Double.MIN_NORMAL;
        double[] a = new double[ORDER + 1];
        a[0] = 1;
        for (int m = 1; m <= ORDER; m++) {
            double sum = r[m];
            for (int k = 1; k < m; k++) {
                sum += a[k] * r[m - k];
            }
            double reflection = -sum / error;
            double[] before = a.clone();
            for (int k = 1; k < m; k++) {
                a[k] = before[k] + reflection * before[m - k];
            }
            a[m] = reflection;
            error *= 1 - reflection * reflection;
        }
        return a;
    }

    /** How the error filter's coefficients correlate: the weights of the normal equations, by distance. */
    private static double[] correlated(double[] a) {
        double[] b = new double[a.length];
        for (int lag = 0; lag < b.length; lag++) {
            for (int k = 0; k + lag < a.length; k++) {
                b[lag] += a[k] * a[k + lag];
            }
        }
        return b;
    }

    /** The unknown samples that make the prediction error smallest: a symmetric banded system, by Cholesky. */
    private static double[] solve(double[] samples, int[] unknown, double[] b) {
        int count = unknown.length;
        double[] known = samples.clone();
        for (int i : unknown) {
            known[i] = 0;
        }
        double[] right = new double[count];
        for (int u = 0; u < count; u++) {
            for (int lag = -ORDER; lag <= ORDER; lag++) {
                int i = unknown[u] + lag;
                right[u] -= i < 0 || i >= known.length ? 0 : b[Math.abs(lag)] * known[i];
            }
        }
        double[][] lower = new double[count][];
        for (int row = 0; row < count; row++) {
            int first = row;
            while (first > 0 && unknown[row] - unknown[first - 1] <= ORDER) {
                first--;
            }
            // only what lies within the band is kept: lower[row][k] stands in column row − length + 1 + k
            lower[row] = new double[row - first + 1];
            for (int column = first; column <= row; column++) {
                double sum = b[unknown[row] - unknown[column]] * (row == column ? 1 + DAMPING : 1);
                int from = Math.max(first, column - lower[column].length + 1);
                for (int k = from; k < column; k++) {
                    sum -= at(lower, row, k) * at(lower, column, k);
                }
                lower[row][column - first] = row == column ? Math.sqrt(Math.max(sum, Double.MIN_NORMAL)) : sum / at(lower, column, column);
            }
        }
        for (int row = 0; row < count; row++) {
            for (int k = row - lower[row].length + 1; k < row; k++) {
                right[row] -= at(lower, row, k) * right[k];
            }
            right[row] /= at(lower, row, row);
        }
        for (int row = count - 1; row >= 0; row--) {
            right[row] /= at(lower, row, row);
            for (int k = row - lower[row].length + 1; k < row; k++) {
                right[k] -= at(lower, row, k) * right[row];
            }
        }
        return right;
    }

    private static double at(double[][] lower, int row, int column) {
        return lower[row][column - row + lower[row].length - 1];
    }
}

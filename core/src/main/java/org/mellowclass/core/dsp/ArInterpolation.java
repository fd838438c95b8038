package org.mellowclass.core.dsp;

import java.util.stream.IntStream;

/**
 * Least-squares autoregressive interpolation (A. J. E. M. Janssen, R. N. J. Veldhuis and L. B. Vries, "Adaptive interpolation
 * of discrete-time signals that can be modeled as autoregressive processes", IEEE Trans. ASSP 34(2), 1986): unknown samples
 * become those that the sound around them predicts best.
 */
final class ArInterpolation {

    private static final double DAMPING = 1e-9;

    private final int order;

    /** @param order how many samples back each one is predicted from */
    ArInterpolation(int order) {
        this.order = order;
    }

    /**
     * One round for unknown samples that are scattered: the model is taken of the samples as they stand, the unknown ones as
     * last guessed.
     *
     * @param samples a whole window
     * @param unknown where the unknown samples stand, in order
     * @return the samples that belong there
     */
    double[] round(double[] samples, int[] unknown) {
        return solve(samples, unknown, correlated(predictor(autocorrelation(samples, 0, samples.length))));
    }

    /**
     * What belongs in one gap: the model is taken of the sound on both sides of it.
     *
     * @param samples some of which, {@code from} to {@code to}, are unknown
     * @return the samples of the gap
     */
    double[] across(double[] samples, int from, int to) {
        double[] r = autocorrelation(samples, 0, from);
        double[] behind = autocorrelation(samples, to, samples.length);
        for (int lag = 0; lag <= order; lag++) {
            r[lag] += behind[lag];
        }
        return solve(samples, IntStream.range(from, to).toArray(), correlated(predictor(r)));
    }

    /** Of a stretch, through a Hann window. */
    private double[] autocorrelation(double[] samples, int from, int to) {
        double[] windowed = new double[to - from];
        for (int i = 0; i < windowed.length; i++) {
            windowed[i] = samples[from + i] * (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / windowed.length));
        }
        double[] r = new double[order + 1];
        for (int lag = 0; lag <= order; lag++) {
            for (int i = lag; i < windowed.length; i++) {
                r[lag] += windowed[i] * windowed[i - lag];
            }
        }
        return r;
    }

    /** The error filter 1, a1 … ap by the autocorrelation method (Levinson and Durbin). */
    private double[] predictor(double[] r) {
        double error = r[0] * (1 + DAMPING) + Double.MIN_NORMAL;
        double[] a = new double[order + 1];
        a[0] = 1;
        for (int m = 1; m <= order; m++) {
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
    private double[] solve(double[] samples, int[] unknown, double[] b) {
        int count = unknown.length;
        double[] known = samples.clone();
        for (int i : unknown) {
            known[i] = 0;
        }
        double[] right = new double[count];
        for (int u = 0; u < count; u++) {
            for (int lag = -order; lag <= order; lag++) {
                int i = unknown[u] + lag;
                right[u] -= i < 0 || i >= known.length ? 0 : b[Math.abs(lag)] * known[i];
            }
        }
        double[][] lower = new double[count][];
        for (int row = 0; row < count; row++) {
            int first = row;
            while (first > 0 && unknown[row] - unknown[first - 1] <= order) {
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

package org.mellowclass.core.measure;

/**
 * The K-weighting of ITU-R BS.1770-5, Annex 1, for one channel at 48 kHz: the shelving filter of its table 1, then the high
 * pass of its table 2, in double precision.
 *
 * <p>Every meter of loudness spends its time here. So what looks back at the input only, the numerators of both filters, is
 * one sum of five taps, which a processor computes for several samples at once; what looks back at the output follows in a
 * loop of its own, with its state in local variables.
 */
public final class KWeighting {

    private static final double[] SHELF = {1.53512485958697, -2.69169618940638, 1.19839281085285};
    private static final double SHELF_1 = 1.69065929318241;
    private static final double SHELF_2 = -0.73248077421585;
    private static final double PASS_1 = 1.99004745483398;
    private static final double PASS_2 = -0.99007225036621;

    /** The taps of the shelf, and those of the high pass (1, −2, 1), as one. */
    private static final double TAP_0 = SHELF[0];
    private static final double TAP_1 = SHELF[1] - 2 * SHELF[0];
    private static final double TAP_2 = SHELF[2] - 2 * SHELF[1] + SHELF[0];
    private static final double TAP_3 = SHELF[1] - 2 * SHELF[2];
    private static final double TAP_4 = SHELF[2];

    private static final int BACK = 4;
    private static final int PART = 480;

    /** The last inputs of the part before, then those of this part. */
    private final float[] inputs = new float[BACK + PART];
    private final double[] tapped = new double[PART];
    private double shelf1;
    private double shelf2;
    private double pass1;
    private double pass2;

    /** The sum of the squares of {@code count} weighted samples. */
    public double squares(float[] samples, int from, int count) {
        double sum = 0;
        for (int done = 0; done < count; done += PART) {
            sum += squaresOfPart(samples, from + done, Math.min(PART, count - done));
        }
        return sum;
    }

    private double squaresOfPart(float[] samples, int from, int count) {
        float[] x = inputs;
        System.arraycopy(samples, from, x, BACK, count);
        for (int i = 0; i < count; i++) {
            tapped[i] = TAP_0 * x[i + 4] + TAP_1 * x[i + 3] + TAP_2 * x[i + 2] + TAP_3 * x[i + 1] + TAP_4 * x[i];
        }
        System.arraycopy(x, count, x, 0, BACK);

        double s1 = shelf1;
        double s2 = shelf2;
        double p1 = pass1;
        double p2 = pass2;
        double sum = 0;
        for (int i = 0; i < count; i++) {
            double shelved = tapped[i] + SHELF_2 * s2 + SHELF_1 * s1;
            double weighted = shelved + PASS_2 * p2 + PASS_1 * p1;
            sum += weighted * weighted;
            s2 = s1;
            s1 = shelved;
            p2 = p1;
            p1 = weighted;
        }
        shelf1 = s1;
        shelf2 = s2;
        pass1 = p1;
        pass2 = p2;
        return sum;
    }
}

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

    /** −600 dB. */
    private static final double NOTHING = 1e-30;
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
            int part = Math.min(PART, count - done);
            tap(samples, from + done, part);
            sum += looped(part);
        }
        return sum;
    }

    /** The sum over two channels at once: while one waits for its sample before, a processor works on the other. */
    static double squares(KWeighting left, float[] leftSamples, KWeighting right, float[] rightSamples, int from, int count) {
        double sum = 0;
        for (int done = 0; done < count; done += PART) {
            int part = Math.min(PART, count - done);
            left.tap(leftSamples, from + done, part);
            right.tap(rightSamples, from + done, part);
            sum += looped(left, right, part);
        }
        return sum;
    }

    private void tap(float[] samples, int from, int count) {
        float[] x = inputs;
        System.arraycopy(samples, from, x, BACK, count);
        for (int i = 0; i < count; i++) {
            tapped[i] = TAP_0 * x[i + 4] + TAP_1 * x[i + 3] + TAP_2 * x[i + 2] + TAP_3 * x[i + 1] + TAP_4 * x[i];
        }
        System.arraycopy(x, count, x, 0, BACK);
    }

    private double looped(int count) {
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
        keep(s1, s2, p1, p2);
        return sum;
    }

    private static double looped(KWeighting left, KWeighting right, int count) {
        double[] leftTapped = left.tapped;
        double[] rightTapped = right.tapped;
        double ls1 = left.shelf1;
        double ls2 = left.shelf2;
        double lp1 = left.pass1;
        double lp2 = left.pass2;
        double rs1 = right.shelf1;
        double rs2 = right.shelf2;
        double rp1 = right.pass1;
        double rp2 = right.pass2;
        double leftSum = 0;
        double rightSum = 0;
        for (int i = 0; i < count; i++) {
            double leftShelved = leftTapped[i] + SHELF_2 * ls2 + SHELF_1 * ls1;
            double rightShelved = rightTapped[i] + SHELF_2 * rs2 + SHELF_1 * rs1;
            double leftWeighted = leftShelved + PASS_2 * lp2 + PASS_1 * lp1;
            double rightWeighted = rightShelved + PASS_2 * rp2 + PASS_1 * rp1;
            leftSum += leftWeighted * leftWeighted;
            rightSum += rightWeighted * rightWeighted;
            ls2 = ls1;
            ls1 = leftShelved;
            lp2 = lp1;
            lp1 = leftWeighted;
            rs2 = rs1;
            rs1 = rightShelved;
            rp2 = rp1;
            rp1 = rightWeighted;
        }
        left.keep(ls1, ls2, lp1, lp2);
        right.keep(rs1, rs2, rp1, rp2);
        return leftSum + rightSum;
    }

    private void keep(double s1, double s2, double p1, double p2) {
        shelf1 = flushed(s1);
        shelf2 = flushed(s2);
        pass1 = flushed(p1);
        pass2 = flushed(p2);
    }

    /** What rings on in digital silence would end as denormal numbers, with which processors are many times as slow. */
    private static double flushed(double state) {
        return Math.abs(state) < NOTHING ? 0 : state;
    }

    /** Whether nothing rings on. */
    boolean atRest() {
        return shelf1 == 0 && shelf2 == 0 && pass1 == 0 && pass2 == 0;
    }
}

package org.mellowclass.core.dsp;

/**
 * A second-order filter, transposed direct form II, in double precision. Coefficients are normalised, so that the one
 * before the newest output is 1.
 */
public final class Biquad {

    private final double b0;
    private final double b1;
    private final double b2;
    private final double a1;
    private final double a2;
    private double z1;
    private double z2;

    public Biquad(double b0, double b1, double b2, double a1, double a2) {
        this.b0 = b0;
        this.b1 = b1;
        this.b2 = b2;
        this.a1 = a1;
        this.a2 = a2;
    }

    public double process(double x) {
        double y = b0 * x + z1;
        z1 = b1 * x - a1 * y + z2;
        z2 = b2 * x - a2 * y;
        return y;
    }
}

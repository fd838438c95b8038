package org.mellowclass.core.dsp;

import org.mellowclass.core.sound.Frames;

/**
 * A filter of second order at 48 kHz, for one channel, in double precision (transposed direct form II). Coefficients after R. Bristow-Johnson,
 * Cookbook formulae for audio equalizer biquad filter coefficients (W3C Working Group Note, 2021).
 */
public final class Biquad {

    /** The quality of a maximally flat filter (Butterworth). */
    public static final double FLAT = Math.sqrt(0.5);
    /** −600 dB: what rings on in digital silence would end as denormal numbers, with which processors are many times as slow. */
    private static final double NOTHING = 1e-30;

    private final double b0;
    private final double b1;
    private final double b2;
    private final double a1;
    private final double a2;
    private double s1;
    private double s2;

    private Biquad(double b0, double b1, double b2, double a0, double a1, double a2) {
        this.b0 = b0 / a0;
        this.b1 = b1 / a0;
        this.b2 = b2 / a0;
        this.a1 = a1 / a0;
        this.a2 = a2 / a0;
    }

    public static Biquad highPass(double hertz, double quality) {
        double cos = Math.cos(angle(hertz));
        double alpha = alpha(hertz, quality);
        return new Biquad((1 + cos) / 2, -(1 + cos), (1 + cos) / 2, 1 + alpha, -2 * cos, 1 - alpha);
    }

    public static Biquad lowPass(double hertz, double quality) {
        double cos = Math.cos(angle(hertz));
        double alpha = alpha(hertz, quality);
        return new Biquad((1 - cos) / 2, 1 - cos, (1 - cos) / 2, 1 + alpha, -2 * cos, 1 - alpha);
    }

    public static Biquad peak(double hertz, double quality, double gainDb) {
        double a = Math.pow(10, gainDb / 40);
        double cos = Math.cos(angle(hertz));
        double alpha = alpha(hertz, quality);
        return new Biquad(1 + alpha * a, -2 * cos, 1 - alpha * a, 1 + alpha / a, -2 * cos, 1 - alpha / a);
    }

    public static Biquad lowShelf(double hertz, double gainDb) {
        double a = Math.pow(10, gainDb / 40);
        double cos = Math.cos(angle(hertz));
        double slope = 2 * Math.sqrt(a) * alpha(hertz, FLAT);
        return new Biquad(a * (a + 1 - (a - 1) * cos + slope), 2 * a * (a - 1 - (a + 1) * cos), a * (a + 1 - (a - 1) * cos - slope),
                a + 1 + (a - 1) * cos + slope, -2 * (a - 1 + (a + 1) * cos), a + 1 + (a - 1) * cos - slope);
    }

    public static Biquad highShelf(double hertz, double gainDb) {
        double a = Math.pow(10, gainDb / 40);
        double cos = Math.cos(angle(hertz));
        double slope = 2 * Math.sqrt(a) * alpha(hertz, FLAT);
        return new Biquad(a * (a + 1 + (a - 1) * cos + slope), -2 * a * (a - 1 + (a + 1) * cos), a * (a + 1 + (a - 1) * cos - slope),
                a + 1 - (a - 1) * cos + slope, 2 * (a - 1 - (a + 1) * cos), a + 1 - (a - 1) * cos - slope);
    }

    private static double angle(double hertz) {
        return 2 * Math.PI * hertz / Frames.RATE;
    }

    private static double alpha(double hertz, double quality) {
        return Math.sin(angle(hertz)) / (2 * quality);
    }

    /** Filters samples in place. */
    public void process(float[] samples, int from, int count) {
        double z1 = s1;
        double z2 = s2;
        for (int i = from; i < from + count; i++) {
            double in = samples[i];
            double out = b0 * in + z1;
            z1 = b1 * in + z2 - a1 * out;
            z2 = b2 * in - a2 * out;
            samples[i] = (float) out;
        }
        keep(z1, z2);
    }

    /** Filters samples in place, by one filter after the other. Two go as one: while one waits for its sample before, a processor works on the other. */
    public static void inTurn(Biquad[] filters, float[] samples, int from, int count) {
        for (int i = 0; i + 1 < filters.length; i += 2) {
            both(filters[i], filters[i + 1], samples, from, count);
        }
        if (filters.length % 2 == 1) {
            filters[filters.length - 1].process(samples, from, count);
        }
    }

    private static void both(Biquad first, Biquad second, float[] samples, int from, int count) {
        double b0 = first.b0;
        double b1 = first.b1;
        double b2 = first.b2;
        double a1 = first.a1;
        double a2 = first.a2;
        double z1 = first.s1;
        double z2 = first.s2;
        double d0 = second.b0;
        double d1 = second.b1;
        double d2 = second.b2;
        double c1 = second.a1;
        double c2 = second.a2;
        double y1 = second.s1;
        double y2 = second.s2;
        for (int i = from; i < from + count; i++) {
            double in = samples[i];
            double between = b0 * in + z1;
            z1 = b1 * in + z2 - a1 * between;
            z2 = b2 * in - a2 * between;
            double out = d0 * between + y1;
            y1 = d1 * between + y2 - c1 * out;
            y2 = d2 * between - c2 * out;
            samples[i] = (float) out;
        }
        first.keep(z1, z2);
        second.keep(y1, y2);
    }

    private void keep(double z1, double z2) {
        s1 = Math.abs(z1) < NOTHING ? 0 : z1;
        s2 = Math.abs(z2) < NOTHING ? 0 : z2;
    }

    public void reset() {
        s1 = 0;
        s2 = 0;
    }
}

package org.mellowclass.core.sound;

/** Ratios of amplitude and of power, and their decibels. */
public final class Decibels {

    private Decibels() {
    }

    /** The amplitude ratio of a level in dB: 0 dB is 1, −6.02 dB is 0.5. */
    public static double toAmplitude(double db) {
        return Math.pow(10, db / 20);
    }

    /** The level in dB of an amplitude ratio above zero. */
    public static double ofAmplitude(double amplitude) {
        return 20 * Math.log10(amplitude);
    }

    /** The level in dB of a power ratio above zero. */
    public static double ofPower(double power) {
        return 10 * Math.log10(power);
    }

    /** The power ratio of a level in dB. */
    public static double toPower(double db) {
        return Math.pow(10, db / 10);
    }
}

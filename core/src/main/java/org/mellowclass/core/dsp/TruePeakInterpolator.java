package org.mellowclass.core.dsp;

/**
 * The four-times interpolating filter of ITU-R BS.1770-5, Annex 2: four phases of twelve taps, for one channel. The wave
 * between two samples is seen at quarter steps, {@link #DELAY_FRAMES} frames after it came in.
 */
public final class TruePeakInterpolator {

    /** Taps a phase. */
    public static final int TAPS = 12;
    /** How many frames the interpolated wave lies behind the newest sample. */
    public static final int DELAY_FRAMES = 6;

    private static final double[][] PHASES = {
        {0.0017089843750, 0.0109863281250, -0.0196533203125, 0.0332031250000, -0.0594482421875, 0.1373291015625,
            0.9721679687500, -0.1022949218750, 0.0476074218750, -0.0266113281250, 0.0148925781250, -0.0083007812500},
        {-0.0291748046875, 0.0292968750000, -0.0517578125000, 0.0891113281250, -0.1665039062500, 0.4650878906250,
            0.7797851562500, -0.2003173828125, 0.1015625000000, -0.0582275390625, 0.0330810546875, -0.0189208984375},
        {-0.0189208984375, 0.0330810546875, -0.0582275390625, 0.1015625000000, -0.2003173828125, 0.7797851562500,
            0.4650878906250, -0.1665039062500, 0.0891113281250, -0.0517578125000, 0.0292968750000, -0.0291748046875},
        {-0.0083007812500, 0.0148925781250, -0.0266113281250, 0.0476074218750, -0.1022949218750, 0.9721679687500,
            0.1373291015625, -0.0594482421875, 0.0332031250000, -0.0196533203125, 0.0109863281250, 0.0017089843750},
    };

    /** No interpolated value can be larger than the largest of the samples under the filter times this. */
    public static final double MOST_GAIN = mostGain(0, TAPS);

    /** The two taps in the middle; an interpolated value lies between their samples. */
    private static final int MIDDLE = TAPS / 2 - 1;
    private static final double MIDDLE_GAIN = mostGain(MIDDLE, MIDDLE + 2);
    private static final double SIDE_GAIN = mostSideGain();

    private TruePeakInterpolator() {
    }

    /**
     * The largest interpolated magnitude for the twelve samples {@code samples[newest − 11 … newest]}.
     */
    public static double peakAt(float[] samples, int newest) {
        double a = 0;
        double b = 0;
        double c = 0;
        double d = 0;
        for (int k = 0; k < TAPS; k++) {
            double sample = samples[newest - k];
            a += PHASES[0][k] * sample;
            b += PHASES[1][k] * sample;
            c += PHASES[2][k] * sample;
            d += PHASES[3][k] * sample;
        }
        return Math.max(Math.max(Math.abs(a), Math.abs(b)), Math.max(Math.abs(c), Math.abs(d)));
    }

    /**
     * Whether {@link #peakAt} there cannot pass a peak, judged by the two samples in the middle.
     *
     * @param largest the largest magnitude of all samples under the filter
     */
    public static boolean staysUnder(double most, float[] samples, int newest, double largest) {
        double middle = Math.max(Math.abs(samples[newest - MIDDLE]), Math.abs(samples[newest - MIDDLE - 1]));
        return MIDDLE_GAIN * middle + SIDE_GAIN * largest <= most;
    }

    private static double mostGain(int fromTap, int toTap) {
        double most = 0;
        for (double[] phase : PHASES) {
            most = Math.max(most, gain(phase, fromTap, toTap));
        }
        return most;
    }

    private static double mostSideGain() {
        double most = 0;
        for (double[] phase : PHASES) {
            most = Math.max(most, gain(phase, 0, TAPS) - gain(phase, MIDDLE, MIDDLE + 2));
        }
        return most;
    }

    private static double gain(double[] phase, int fromTap, int toTap) {
        double sum = 0;
        for (int tap = fromTap; tap < toTap; tap++) {
            sum += Math.abs(phase[tap]);
        }
        return sum;
    }
}

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
    public static final double MOST_GAIN = mostGain();

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

    private static double mostGain() {
        double most = 0;
        for (double[] phase : PHASES) {
            double sum = 0;
            for (double tap : phase) {
                sum += Math.abs(tap);
            }
            most = Math.max(most, sum);
        }
        return most;
    }
}

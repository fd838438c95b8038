package org.mellowclass.core.measure;

import java.util.Arrays;

/**
 * How much each channel counts in the loudness of a sound: ITU-R BS.1770-5, Annex 1, table 3, and its Annex 3 for more than
 * five. Channels to the side of the listener count 1.41, low-frequency effects nothing, all others 1.
 */
final class ChannelWeights {

    private static final double SIDE = 1.41;

    private ChannelWeights() {
    }

    /**
     * The weights for channels in the order of WAV: front left and right, centre, low-frequency effects, back, side. Four
     * are left, right and two surrounds; five have no low-frequency effects.
     */
    static double[] of(int channels) {
        return switch (channels) {
            case 4 -> new double[] {1, 1, SIDE, SIDE};
            case 5 -> new double[] {1, 1, 1, SIDE, SIDE};
            case 6 -> new double[] {1, 1, 1, 0, SIDE, SIDE};
            case 7 -> new double[] {1, 1, 1, 0, 1, SIDE, SIDE};
            case 8 -> new double[] {1, 1, 1, 0, 1, 1, SIDE, SIDE};
            default -> {
                double[] weights = new double[channels];
                Arrays.fill(weights, 1);
                yield weights;
            }
        };
    }
}

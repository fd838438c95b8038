package org.mellowclass.core.measure;

import org.mellowclass.core.dsp.Biquad;

/** The K-weighting of ITU-R BS.1770-5, Annex 1, tables 1 and 2, for one channel at 48 kHz. */
public final class KWeighting {

    private final Biquad shelf = new Biquad(1.53512485958697, -2.69169618940638, 1.19839281085285,
            -1.69065929318241, 0.73248077421585);
    private final Biquad highPass = new Biquad(1, -2, 1, -1.99004745483398, 0.99007225036621);

    /** The sum of the squares of {@code count} weighted samples. */
    public double squares(float[] samples, int from, int count) {
        double sum = 0;
        for (int i = from; i < from + count; i++) {
            double weighted = highPass.process(shelf.process(samples[i]));
            sum += weighted * weighted;
        }
        return sum;
    }
}

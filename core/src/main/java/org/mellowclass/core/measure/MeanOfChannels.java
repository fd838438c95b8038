package org.mellowclass.core.measure;

/** The mean of all channels, for meters that judge a sound by it. */
public final class MeanOfChannels {

    private final float[][] mean = new float[1][0];

    /** One channel of {@code frames} frames, good until the next call; what has one channel is handed back as it is. */
    public float[][] of(float[][] block, int frames) {
        if (block.length == 1) {
            return block;
        }
        if (mean[0].length < frames) {
            mean[0] = new float[frames];
        }
        float[] sum = mean[0];
        System.arraycopy(block[0], 0, sum, 0, frames);
        for (int c = 1; c < block.length; c++) {
            float[] channel = block[c];
            for (int i = 0; i < frames; i++) {
                sum[i] += channel[i];
            }
        }
        float part = 1f / block.length;
        for (int i = 0; i < frames; i++) {
            sum[i] *= part;
        }
        return mean;
    }
}

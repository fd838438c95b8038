package org.mellowclass.core.sound;

/** A short sound that is held in memory. */
public final class HeldSound implements SampleSource {

    private final float[][] samples;
    private final int rate;
    private int position;

    /** @param samples by channel, all of one length */
    public HeldSound(int rate, float[][] samples) {
        this.rate = rate;
        this.samples = samples;
    }

    @Override
    public int channels() {
        return samples.length;
    }

    @Override
    public int sampleRate() {
        return rate;
    }

    @Override
    public int read(float[][] into, int offset, int frames) {
        int count = Math.min(frames, samples[0].length - position);
        for (int c = 0; c < samples.length; c++) {
            System.arraycopy(samples[c], position, into[c], offset, count);
        }
        position += count;
        return count;
    }
}

package org.mellowclass.core.dsp;

import org.mellowclass.core.sound.Decibels;

/** A gain over time, straight between points that stand equally far apart. */
public final class GainCurve implements Processor {

    private final float[] gains;
    private final int stepFrames;
    private final long firstFrame;
    private final long fromFrame;
    private long frame;

    /**
     * @param stepFrames from one point to the next
     * @param firstFrame where the first stands; its gain holds before it, the last one's behind it
     * @param fromFrame  which frame the sound starts with
     */
    public GainCurve(double[] gainsDb, int stepFrames, long firstFrame, long fromFrame) {
        this.gains = new float[gainsDb.length];
        for (int i = 0; i < gains.length; i++) {
            gains[i] = (float) Decibels.toAmplitude(gainsDb[i]);
        }
        this.stepFrames = stepFrames;
        this.firstFrame = firstFrame;
        this.fromFrame = fromFrame;
        reset();
    }

    @Override
    public void process(float[][] block, int frames) {
        for (int i = 0; i < frames; i++) {
            float gain = gainAt(frame++ - firstFrame);
            for (float[] channel : block) {
                channel[i] *= gain;
            }
        }
    }

    private float gainAt(long into) {
        if (into < 0) {
            return gains[0];
        }
        int point = (int) Math.min(gains.length - 1, into / stepFrames);
        return point == gains.length - 1 ? gains[point] : gains[point] + (gains[point + 1] - gains[point]) * (into % stepFrames) / stepFrames;
    }

    @Override
    public void reset() {
        frame = fromFrame;
    }

    @Override
    public int latencyFrames() {
        return 0;
    }

    @Override
    public int settleFrames() {
        return 0;
    }
}

package org.mellowclass.core.dsp;

import org.mellowclass.core.sound.Decibels;

/** One gain. */
public final class Gain implements Processor {

    private final float gain;

    public Gain(double gainDb) {
        gain = (float) Decibels.toAmplitude(gainDb);
    }

    @Override
    public void process(float[][] block, int frames) {
        for (float[] channel : block) {
            for (int i = 0; i < frames; i++) {
                channel[i] *= gain;
            }
        }
    }

    @Override
    public void reset() {
        // it remembers nothing
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

package org.mellowclass.core.dsp;

import java.util.List;
import java.util.function.Supplier;

import org.mellowclass.core.sound.Frames;

/** Filters one after another, the same for every channel. They ring for a fraction of a second and do not delay. */
public final class Filters implements Processor {

    private static final int SETTLE_FRAMES = (int) Frames.ofMillis(200);

    private final Biquad[][] filters;

    /** @param chain makes the filters of one channel */
    public Filters(int channels, Supplier<List<Biquad>> chain) {
        filters = new Biquad[channels][];
        for (int c = 0; c < channels; c++) {
            filters[c] = chain.get().toArray(Biquad[]::new);
        }
    }

    @Override
    public void process(float[][] block, int frames) {
        for (int c = 0; c < filters.length; c++) {
            for (Biquad filter : filters[c]) {
                filter.process(block[c], 0, frames);
            }
        }
    }

    @Override
    public void reset() {
        for (Biquad[] chain : filters) {
            for (Biquad filter : chain) {
                filter.reset();
            }
        }
    }

    @Override
    public int latencyFrames() {
        return 0;
    }

    @Override
    public int settleFrames() {
        return SETTLE_FRAMES;
    }
}

package org.mellowclass.core.dsp;

/**
 * Changes sound at 48 kHz as it passes, in place. What it does to a frame depends on frames near by and on numbers it was made with, never
 * on the sizes of the blocks.
 */
public interface Processor {

    /**
     * Changes {@code frames} frames of {@code block[channel][0 …]}. What stands there afterwards is what was given {@link #latencyFrames()}
     * frames earlier, changed; silence at first.
     */
    void process(float[][] block, int frames);

    /** As if nothing had passed yet. */
    void reset();

    int latencyFrames();

    /** So many frames in front of a place, and what is made of the place is as good as if all that was before had passed. */
    int settleFrames();
}

package org.mellowclass.core.dsp;

import java.util.Arrays;

/** Delays one channel by a fixed number of frames. */
final class DelayLine {

    private final float[] ring;
    private int at;

    DelayLine(int frames) {
        ring = new float[frames];
    }

    float through(float sample) {
        if (ring.length == 0) {
            return sample;
        }
        float late = ring[at];
        ring[at] = sample;
        at = at + 1 == ring.length ? 0 : at + 1;
        return late;
    }

    void reset() {
        Arrays.fill(ring, 0f);
        at = 0;
    }
}

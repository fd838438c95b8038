package org.mellowclass.core.sound;

import java.util.Arrays;

/** A sound of digital silence: what is heard of a take that has been erased. */
public record Silence(int channels, long frames) implements RandomAccessSound {

    @Override
    public void readAt(long fromFrame, float[][] into, int offset, int count) {
        for (float[] channel : into) {
            Arrays.fill(channel, offset, offset + count, 0f);
        }
    }
}

package org.mellowclass.core.sound;

import java.io.IOException;

/** What can be made of the two sides of a sound. */
public enum Sides {
    /** One channel: the left side. */
    LEFT(1, (l, r, out, i) -> out[0][i] = l),
    /** One channel: the right side. */
    RIGHT(1, (l, r, out, i) -> out[0][i] = r),
    /** One channel: the mean of both. */
    MEAN(1, (l, r, out, i) -> out[0][i] = (l + r) / 2),
    /** Two channels, the right one turned over. */
    RIGHT_REVERSED(2, (l, r, out, i) -> {
        out[0][i] = l;
        out[1][i] = -r;
    }),
    /** Two channels, the left one silent. */
    WITHOUT_LEFT(2, (l, r, out, i) -> {
        out[0][i] = 0;
        out[1][i] = r;
    }),
    /** Two channels, the right one silent. */
    WITHOUT_RIGHT(2, (l, r, out, i) -> {
        out[0][i] = l;
        out[1][i] = 0;
    });

    private static final int BLOCK = 4096;

    private final int channels;
    private final Mix mix;

    Sides(int channels, Mix mix) {
        this.channels = channels;
        this.mix = mix;
    }

    private interface Mix {
        void put(float left, float right, float[][] out, int at);
    }

    /** The sound that it makes of one with two channels. */
    public SampleSource of(SampleSource stereo) {
        if (stereo.channels() != 2) {
            throw new IllegalArgumentException("not two sides: " + stereo.channels());
        }
        float[][] read = new float[2][BLOCK];
        return new SampleSource() {
            @Override
            public int channels() {
                return channels;
            }

            @Override
            public int sampleRate() {
                return stereo.sampleRate();
            }

            @Override
            public int read(float[][] into, int offset, int frames) throws IOException {
                int count = stereo.read(read, 0, Math.min(frames, BLOCK));
                for (int i = 0; i < count; i++) {
                    mix.put(read[0][i], read[1][i], into, offset + i);
                }
                return count;
            }

            @Override
            public void close() throws IOException {
                stereo.close();
            }
        };
    }
}

package org.mellowclass.core.dsp;

import java.util.Arrays;

/** Comes back some times, each time 6 dB softer. */
public final class Echo {

    public static final int TIMES = 4;

    private Echo() {
    }

    /**
     * @param sound  by channel
     * @param frames between one echo and the next
     * @return longer by all echoes
     */
    public static float[][] of(float[][] sound, int frames) {
        float[][] out = new float[sound.length][];
        for (int c = 0; c < sound.length; c++) {
            out[c] = Arrays.copyOf(sound[c], sound[c].length + TIMES * frames);
            float gain = 1;
            for (int time = 1; time <= TIMES; time++) {
                gain /= 2;
                int late = time * frames;
                for (int i = 0; i < sound[c].length; i++) {
                    out[c][late + i] += gain * sound[c][i];
                }
            }
        }
        return out;
    }
}

package org.mellowclass.core.dsp;

import org.mellowclass.core.sound.Frames;

/**
 * A big room around a sound: four combs side by side, then two all-pass filters (Schroeder, Natural sounding artificial reverberation, Journal of
 * the Audio Engineering Society 10, 1962). Each comb's gain lets it fall by 60 dB in the reverberation time.
 */
public final class Hall {

    private static final double[] COMBS_MS = {29.7, 37.1, 41.1, 43.7};
    private static final double[] ALL_PASSES_MS = {5, 1.7};
    private static final float ALL_PASS = 0.7f;
    /** The room's level beside the sound's. */
    private static final float ROOM = 0.4f;

    private Hall() {
    }

    /**
     * @param sound  by channel
     * @param frames the reverberation time
     * @return longer by it; the room fades out in its last tenth
     */
    public static float[][] of(float[][] sound, int frames) {
        float[][] out = new float[sound.length][];
        for (int c = 0; c < sound.length; c++) {
            int length = sound[c].length + frames;
            float[] room = new float[length];
            for (double ms : COMBS_MS) {
                comb(sound[c], room, delay(ms), (float) Math.pow(10, -3.0 * delay(ms) / frames));
            }
            for (double ms : ALL_PASSES_MS) {
                allPass(room, delay(ms));
            }
            int fade = frames / 10;
            for (int i = 0; i < length; i++) {
                float left = Math.min(1f, (float) (length - i) / fade);
                room[i] = ROOM * left * room[i] + (i < sound[c].length ? sound[c][i] : 0);
            }
            out[c] = room;
        }
        return out;
    }

    private static int delay(double ms) {
        return (int) (ms * Frames.RATE / 1000);
    }

    private static void comb(float[] sound, float[] sum, int delay, float gain) {
        float[] ring = new float[delay];
        for (int i = 0; i < sum.length; i++) {
            int at = i % delay;
            float late = ring[at];
            ring[at] = (i < sound.length ? sound[i] : 0) + gain * late;
            sum[i] += late / COMBS_MS.length;
        }
    }

    private static void allPass(float[] sound, int delay) {
        float[] ring = new float[delay];
        for (int i = 0; i < sound.length; i++) {
            int at = i % delay;
            float late = ring[at];
            float in = sound[i] + ALL_PASS * late;
            ring[at] = in;
            sound[i] = late - ALL_PASS * in;
        }
    }
}

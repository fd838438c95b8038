package org.mellowclass.core.dsp;

/**
 * Makes a stretch of sound longer or shorter without changing its pitch: waveform similarity overlap-add (Verhelst and Roelands, An overlap-add
 * technique based on waveform similarity, ICASSP 1993). Windows of 40 ms that overlap by half are laid one behind the other, each taken from
 * within 10 ms of where it belongs, at the place that goes on best from the one before. All channels go as one.
 *
 * <p>The stretch begins with its first samples and ends with its last ones as they are, so that stretches of one sound that adjoin, each
 * stretched alone, join without a step.
 */
public final class TimeStretch {

    private static final int HOP = 960;
    private static final int WINDOW = 2 * HOP;
    private static final int SEARCH = 480;
    /** The similarity is looked for at every such sample first, then at each beside the best. */
    private static final int COARSE = 8;

    private TimeStretch() {
    }

    /**
     * @param sound     by channel, all of one length
     * @param outFrames how long it shall be
     */
    public static float[][] stretched(float[][] sound, int outFrames) {
        int frames = sound[0].length;
        float[][] out = new float[sound.length][outFrames];
        if (outFrames == frames || frames < 2 * WINDOW || outFrames < 2 * WINDOW) {
            joined(sound, out);
            return out;
        }
        float[] mono = mono(sound);
        for (int c = 0; c < sound.length; c++) {
            System.arraycopy(sound[c], 0, out[c], 0, WINDOW);
        }
        int position = 0;
        for (int at = HOP; at < outFrames - HOP; at += HOP) {
            boolean last = at + 2 * HOP >= outFrames - HOP;
            int natural = position + HOP;
            int next = last ? frames - (outFrames - at) : best(mono, natural, (int) ((long) at * frames / outFrames));
            int length = last ? outFrames - at : WINDOW;
            for (int c = 0; c < sound.length; c++) {
                for (int i = 0; i < HOP; i++) {
                    double in = 0.5 - 0.5 * Math.cos(Math.PI * (i + 0.5) / HOP);
                    out[c][at + i] = (float) ((1 - in) * out[c][at + i] + in * sound[c][next + i]);
                }
                System.arraycopy(sound[c], next + HOP, out[c], at + HOP, length - HOP);
            }
            if (last) {
                return out;
            }
            position = next;
        }
        return out;
    }

    /** Too short to be stretched: its start fades into its end. */
    private static void joined(float[][] sound, float[][] out) {
        int frames = sound[0].length;
        int length = out[0].length;
        for (int c = 0; c < out.length; c++) {
            for (int i = 0; i < length; i++) {
                double in = (i + 0.5) / length;
                int end = frames - length + i;
                float first = i < frames ? sound[c][i] : 0;
                float last = end >= 0 && end < frames ? sound[c][end] : 0;
                out[c][i] = frames == length ? first : (float) ((1 - in) * first + in * last);
            }
        }
    }

    private static float[] mono(float[][] sound) {
        float[] mono = new float[sound[0].length];
        for (float[] channel : sound) {
            for (int i = 0; i < mono.length; i++) {
                mono[i] += channel[i];
            }
        }
        return mono;
    }

    /** Where, near a place, the sound is most like what would follow naturally. */
    private static int best(float[] mono, int natural, int place) {
        int last = mono.length - WINDOW;
        int from = Math.max(0, Math.min(last, place - SEARCH));
        int to = Math.max(0, Math.min(last, place + SEARCH));
        if (natural >= from && natural <= to) {
            return natural;
        }
        int coarse = best(mono, natural, from, to, COARSE);
        return best(mono, natural, Math.max(from, coarse - COARSE), Math.min(to, coarse + COARSE), 1);
    }

    private static int best(float[] mono, int natural, int from, int to, int step) {
        int best = from;
        double most = Double.NEGATIVE_INFINITY;
        for (int at = from; at <= to; at += step) {
            double dot = 0;
            double power = 1e-9;
            for (int i = 0; i < HOP && natural + i < mono.length; i += 2) {
                dot += mono[natural + i] * mono[at + i];
                power += mono[at + i] * mono[at + i];
            }
            double likeness = dot / Math.sqrt(power);
            if (likeness > most) {
                most = likeness;
                best = at;
            }
        }
        return best;
    }
}

package org.mellowclass.browser;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Signal;

/** Tones in place of words, so that what comes out of a journey can be measured: which of them are heard, in which order, how long and how loud. */
final class Tones {

    private static final int STEP = Frames.RATE / 100;
    /** Quieter than so much under the loudest is a pause. */
    private static final double PAUSE_DB = -38;
    private static final double SHORTEST_SECONDS = 0.06;

    private Tones() {
    }

    /** A stretch in which one thing is heard; 0 Hz is a pause. */
    record Heard(int hertz, double seconds, double db) {

        @Override
        public String toString() {
            return (hertz == 0 ? "pause" : hertz + " Hz") + String.format(Locale.ENGLISH, " %.1f s", seconds);
        }
    }

    /** A voice that says these, each so many seconds; 0 Hz is the room. */
    static Signal voice(double... hertzAndSeconds) {
        List<Signal> parts = new ArrayList<>();
        for (int i = 0; i < hertzAndSeconds.length; i += 2) {
            parts.add(hertzAndSeconds[i] == 0 ? Signal.noise(1, -62, hertzAndSeconds[i + 1], i + 1) : Signal.sine(1, hertzAndSeconds[i], -14, hertzAndSeconds[i + 1]));
        }
        return Signal.concat(parts.toArray(Signal[]::new));
    }

    /** What is heard in a sound, of these tones. */
    static List<Heard> in(float[] sound, int... hertz) {
        int steps = sound.length / STEP;
        double[] levels = new double[steps];
        int[] tones = new int[steps];
        for (int i = 0; i < steps; i++) {
            double most = 0;
            for (int tone : hertz) {
                double power = power(sound, i * STEP, tone);
                if (power > most) {
                    most = power;
                    tones[i] = tone;
                }
            }
            levels[i] = 10 * Math.log10(Math.max(1e-12, most));
        }
        double loudest = Arrays.stream(levels).max().orElse(0);
        List<Heard> heard = new ArrayList<>();
        for (int i = 0; i < steps; ) {
            int tone = levels[i] < loudest + PAUSE_DB ? 0 : tones[i];
            int from = i;
            double sum = 0;
            while (i < steps && (levels[i] < loudest + PAUSE_DB ? 0 : tones[i]) == tone) {
                sum += levels[i++];
            }
            add(heard, new Heard(tone, (i - from) / 100.0, sum / (i - from)));
        }
        return heard;
    }

    /** The level of one tone in the 20 ms from a frame on, in dB. */
    static double level(float[] sound, int frame, int hertz) {
        return 10 * Math.log10(Math.max(1e-12, power(sound, frame, hertz)));
    }

    /** What is too short to be said belongs to what is before it. */
    private static void add(List<Heard> heard, Heard next) {
        Heard last = heard.isEmpty() ? null : heard.get(heard.size() - 1);
        if (last != null && (last.hertz == next.hertz || next.seconds < SHORTEST_SECONDS)) {
            heard.set(heard.size() - 1, new Heard(last.hertz, last.seconds + next.seconds, last.db));
        } else if (last != null && last.seconds < SHORTEST_SECONDS) {
            heard.set(heard.size() - 1, new Heard(next.hertz, last.seconds + next.seconds, next.db));
        } else {
            heard.add(next);
        }
    }

    /** The power of one tone in 20 ms from a frame on (Goertzel 1958). */
    private static double power(float[] sound, int from, int hertz) {
        int frames = Math.min(2 * STEP, sound.length - from);
        double coefficient = 2 * Math.cos(2 * Math.PI * hertz / Frames.RATE);
        double before = 0;
        double earlier = 0;
        for (int i = 0; i < frames; i++) {
            double now = sound[from + i] + coefficient * before - earlier;
            earlier = before;
            before = now;
        }
        return (before * before + earlier * earlier - coefficient * before * earlier) / ((double) frames * frames);
    }
}

package org.mellowclass.browser;

import java.util.ArrayList;
import java.util.List;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Alignment;

/** Compares what was to be heard with what was: lined up as a whole, then by parts of half a second. */
final class Heard {

    private static final int PART = Frames.RATE / 2;
    private static final double QUIET_RMS = 0.01;
    private static final double SAME = 0.97;

    private Heard() {
    }

    /** The parts of a sound, by the second they start at, in which another one has something else at their place. */
    static List<String> otherwise(float[] wanted, float[] heard) {
        int offset = Alignment.offset(wanted, heard, Frames.RATE);
        List<String> wrong = new ArrayList<>();
        for (int at = 0; at + PART <= wanted.length; at += PART) {
            double same = Alignment.correlation(wanted, at, heard, at + offset, PART);
            if (rms(wanted, at) > QUIET_RMS && same < SAME) {
                wrong.add("second %.1f: %.2f".formatted(at / (double) Frames.RATE, same));
            }
        }
        return wrong;
    }

    private static double rms(float[] sound, int from) {
        double squares = 0;
        for (int i = from; i < from + PART; i++) {
            squares += sound[i] * sound[i];
        }
        return Math.sqrt(squares / PART);
    }
}

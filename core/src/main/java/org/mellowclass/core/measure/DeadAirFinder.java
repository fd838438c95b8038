package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.List;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;

/** Finds dead air: stretches whose momentary loudness stays 25 LU or more under the integrated loudness. */
public final class DeadAirFinder {

    private static final double UNDER_LU = 25;

    private DeadAirFinder() {
    }

    /**
     * The stretches longer than {@code longerThanFrames}, in order, in frames at 48 kHz. A sound without any loudness is
     * dead from start to end.
     */
    public static List<Span> find(LoudnessMeter meter, long soundFrames, long longerThanFrames) {
        if (meter.integrated().isEmpty()) {
            return soundFrames > longerThanFrames ? List.of(new Span(0, soundFrames)) : List.of();
        }
        double threshold = meter.integrated().getAsDouble() - UNDER_LU;
        double[] momentary = meter.momentary();
        List<Span> found = new ArrayList<>();
        int start = -1;
        for (int i = 0; i <= momentary.length; i++) {
            boolean dead = i < momentary.length && momentary[i] <= threshold;
            if (dead && start < 0) {
                start = i;
            } else if (!dead && start >= 0) {
                long from = (long) start * LoudnessMeter.MOMENTARY_STEP_FRAMES;
                long to = (long) (i - 1) * LoudnessMeter.MOMENTARY_STEP_FRAMES + LoudnessMeter.MOMENTARY_FRAMES;
                if (to - from > longerThanFrames) {
                    found.add(new Span(from, Math.min(to, soundFrames)));
                }
                start = -1;
            }
        }
        return found;
    }

    /** Dead air shorter than this is an ordinary pause. */
    public static long ordinaryPauseFrames() {
        return Frames.ofSeconds(2);
    }
}

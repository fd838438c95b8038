package org.mellowclass.core.cleanup;

import java.util.Arrays;
import java.util.OptionalDouble;

import org.mellowclass.core.dsp.GainCurve;
import org.mellowclass.core.dsp.Streamed;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.sound.SampleSource;

/**
 * Makes phrases even: those that are louder than the quieter ones are taken down towards them, at most 3 dB in a second, and not at all in
 * pauses, where the gain only goes on. Nothing is raised, so the room is not.
 */
final class Phrases {

    private static final double MOST_DB_A_SECOND = 3;
    private static final double STEPS_A_SECOND = 10;
    /** Phrases are measured over so many momentary values (each of 400 ms) on both sides. */
    private static final int REACH_STEPS = 10;
    private static final double SPEECH_UNDER_MEAN_LU = 12;
    /** The quieter third of what is spoken stays as it is. */
    private static final double QUIETER = 0.3;

    private Phrases() {
    }

    /** Of the take as it was: what the steps in front of it do to all of it alike is no matter. */
    static Prepared prepare(Stage stage, double mostDb) {
        double[] momentary = stage.heard().momentaryLufs();
        OptionalDouble mean = stage.heard().loudnessLufs();
        if (mean.isEmpty() || momentary.length == 0) {
            return Prepared.NOTHING;
        }
        double least = mean.getAsDouble() - SPEECH_UNDER_MEAN_LU;
        double[] spoken = phrases(momentary, least);
        double[] sorted = Arrays.stream(spoken).filter(lufs -> !Double.isNaN(lufs)).sorted().toArray();
        if (sorted.length == 0) {
            return Prepared.NOTHING;
        }
        double target = sorted[(int) (QUIETER * (sorted.length - 1))];
        double[] gains = new double[spoken.length];
        double last = firstGain(spoken, target, mostDb);
        for (int i = 0; i < gains.length; i++) {
            last = Double.isNaN(spoken[i]) ? last : -Math.max(0, Math.min(mostDb, spoken[i] - target));
            gains[i] = last;
        }
        limitSlope(gains);
        return new Prepared() {
            @Override
            public SampleSource process(SampleSource sound, long fromFrame) {
                // a momentary value speaks of the middle of its window
                return new Streamed(sound, new GainCurve(gains, LoudnessMeter.MOMENTARY_STEP_FRAMES, LoudnessMeter.MOMENTARY_FRAMES / 2, fromFrame));
            }
        };
    }

    private static double firstGain(double[] spoken, double target, double mostDb) {
        return Arrays.stream(spoken).filter(lufs -> !Double.isNaN(lufs)).findFirst().stream().map(lufs -> -Math.max(0, Math.min(mostDb, lufs - target))).findFirst().orElse(0);
    }

    /** The mean loudness of speech around each step; NaN in pauses. */
    private static double[] phrases(double[] momentary, double least) {
        double[] phrases = new double[momentary.length];
        for (int i = 0; i < phrases.length; i++) {
            double sum = 0;
            int count = 0;
            for (int j = Math.max(0, i - REACH_STEPS); j < Math.min(momentary.length, i + REACH_STEPS + 1); j++) {
                if (momentary[j] >= least) {
                    sum += momentary[j];
                    count++;
                }
            }
            phrases[i] = momentary[i] >= least ? sum / count : Double.NaN;
        }
        return phrases;
    }

    /** Lowers what would rise or fall too fast: a gain is reached in time, and given up slowly. */
    private static void limitSlope(double[] gains) {
        double step = MOST_DB_A_SECOND / STEPS_A_SECOND;
        for (int i = 1; i < gains.length; i++) {
            gains[i] = Math.min(gains[i], gains[i - 1] + step);
        }
        for (int i = gains.length - 2; i >= 0; i--) {
            gains[i] = Math.min(gains[i], gains[i + 1] + step);
        }
    }
}

package org.mellowclass.core.soundcheck;

import java.util.List;
import java.util.OptionalDouble;

/**
 * How loud a voice should be while it is recorded: the median one-second peak while speaking, in dBFS. Good between
 * {@code lowGood} and {@code highGood}, to be checked up to {@code lowCheck} and {@code highCheck}, to be mended beyond.
 */
public record WorkingLevel(double lowCheck, double lowGood, double highGood, double highCheck) {

    public static final WorkingLevel STANDARD = new WorkingLevel(-36, -24, -6, -3);

    /** Seconds this far under the loudest one are taken for pauses. */
    private static final double SPEAKING_WITHIN_DB = 20;

    /**
     * The working level of speech: the median of the one-second peaks while somebody speaks.
     *
     * @param peaksDbfs one peak a second, in dBFS
     * @return empty if there is none
     */
    public static OptionalDouble measured(List<Double> peaksDbfs) {
        double loudest = peaksDbfs.stream().mapToDouble(Double::doubleValue).max().orElse(Double.NEGATIVE_INFINITY);
        double[] speaking = peaksDbfs.stream().mapToDouble(Double::doubleValue)
                .filter(peak -> peak >= loudest - SPEAKING_WITHIN_DB).sorted().toArray();
        return speaking.length == 0 ? OptionalDouble.empty()
                : OptionalDouble.of((speaking[(speaking.length - 1) / 2] + speaking[speaking.length / 2]) / 2);
    }

    public Verdict verdict(double dbfs) {
        if (dbfs >= lowGood && dbfs <= highGood) {
            return Verdict.GOOD;
        }
        return dbfs >= lowCheck && dbfs <= highCheck ? Verdict.CHECK : Verdict.FIX;
    }
}

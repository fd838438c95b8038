package org.mellowclass.core.soundcheck;

/**
 * How loud a voice should be while it is recorded: the median one-second peak while speaking, in dBFS. Good between
 * {@code lowGood} and {@code highGood}, to be checked up to {@code lowCheck} and {@code highCheck}, to be mended beyond.
 */
public record WorkingLevel(double lowCheck, double lowGood, double highGood, double highCheck) {

    public static final WorkingLevel STANDARD = new WorkingLevel(-36, -24, -6, -3);
}

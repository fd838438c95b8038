package org.mellowclass.core.dsp;

import java.util.function.DoubleUnaryOperator;

/**
 * A function of a positive number, tabulated by the number's bits: as many entries for every doubling, each found without a logarithm. The
 * relative step is 1/128.
 */
final class LogTable {

    private static final int MANTISSA_BITS = 7;
    private static final int SHIFT = 23 - MANTISSA_BITS;

    private final int first;
    private final float[] values;

    /** What lies outside of the range has the value of its end. */
    LogTable(double least, double most, DoubleUnaryOperator function) {
        first = Float.floatToRawIntBits((float) least) >> SHIFT;
        values = new float[(Float.floatToRawIntBits((float) most) >> SHIFT) - first + 1];
        for (int i = 0; i < values.length; i++) {
            double low = Float.intBitsToFloat(first + i << SHIFT);
            double high = Float.intBitsToFloat(first + i + 1 << SHIFT);
            values[i] = (float) function.applyAsDouble((low + high) / 2);
        }
    }

    float at(float number) {
        return values[index(number)];
    }

    /** Where a number is found in every table with this one's range. */
    int index(float number) {
        int index = (Float.floatToRawIntBits(number) >> SHIFT) - first;
        return Math.max(0, Math.min(values.length - 1, index));
    }

    float value(int index) {
        return values[index];
    }
}

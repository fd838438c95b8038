package org.mellowclass.core.dsp;

import java.util.Arrays;

/** The exact sum of the last {@code length} integers. */
final class BoxSum {

    private final long[] ring;
    private int at;
    private long sum;

    /** @param initial the value of everything before the first */
    BoxSum(int length, long initial) {
        this.ring = new long[length];
        Arrays.fill(ring, initial);
        this.sum = initial * length;
    }

    long add(long value) {
        sum += value - ring[at];
        ring[at] = value;
        at = at + 1 == ring.length ? 0 : at + 1;
        return sum;
    }
}

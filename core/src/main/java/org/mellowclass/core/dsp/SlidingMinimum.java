package org.mellowclass.core.dsp;

/** The smallest of the last {@code window} values, in constant time a value (Lemire 2006, monotonic queue). */
final class SlidingMinimum {

    private final int window;
    private final long[] values;
    private final long[] positions;
    private int head;
    private int size;
    private long count;

    SlidingMinimum(int window) {
        this.window = window;
        this.values = new long[window + 1];
        this.positions = new long[window + 1];
    }

    /** Takes one value and returns the minimum of the last {@code window}. */
    long add(long value) {
        while (size > 0 && values[wrapped(head + size - 1)] >= value) {
            size--;
        }
        int tail = wrapped(head + size);
        values[tail] = value;
        positions[tail] = count;
        size++;
        count++;
        if (positions[head] <= count - 1 - window) {
            head = wrapped(head + 1);
            size--;
        }
        return values[head];
    }

    /** Forgets everything, for when all that is remembered has the highest value there is. */
    void clear() {
        size = 0;
    }

    private int wrapped(int index) {
        return index >= values.length ? index - values.length : index;
    }
}

package org.mellowclass.benchmarks;

/**
 * One line of the report.
 *
 * @param ours    what was measured of us, with its unit
 * @param against the general-purpose tool's, with its unit; "" where there is none
 * @param value   the ratio, or the time in ms
 * @param bound   what it may be at most
 */
record Row(String work, String ours, String against, String value, double measured, double bound) {

    boolean holds() {
        return measured <= bound;
    }
}

package org.mellowclass.core.sound;

/** The core's clock: audio inside the core runs at {@link #RATE} frames a second and positions are {@code long} frames. */
public final class Frames {

    /** Frames a second, everywhere inside the core. */
    public static final int RATE = 48_000;

    private Frames() {
    }

    public static long ofMillis(long millis) {
        return millis * RATE / 1000;
    }

    public static long ofSeconds(long seconds) {
        return seconds * RATE;
    }

    /** For the edges only (pages, reports, feeds); inside, keep frames. */
    public static double toSeconds(long frames) {
        return (double) frames / RATE;
    }

    /** Whole milliseconds, rounded to the nearest. */
    public static long toMillis(long frames) {
        return Math.round(frames * 1000.0 / RATE);
    }

    /**
     * The number of frames at {@link #RATE} that last as long as {@code frames} at {@code rate}, rounded up, so that no
     * sound at the end is lost.
     */
    public static long converted(long frames, int rate) {
        return -Math.floorDiv(-Math.multiplyExact(frames, (long) RATE), (long) rate);
    }
}

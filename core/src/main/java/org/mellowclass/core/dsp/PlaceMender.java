package org.mellowclass.core.dsp;

import java.io.IOException;
import java.util.BitSet;
import java.util.List;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/** Puts sound that fits in place of clicks and small bumps, by {@link ArInterpolation} from what stands on both sides. */
public final class PlaceMender extends PlaceRepair {

    /** A longer place cannot be guessed from what is around it. */
    public static final long LONGEST = Frames.ofMillis(20);

    private static final int AROUND = 2048;
    /** A voice is predicted from more than a period of its pitch. */
    private static final int LEAST_ORDER = 60;
    private static final int MOST_ORDER = 480;

    private PlaceMender(SampleSource source, List<Span> places) throws IOException {
        super(source, places, AROUND + (int) LONGEST);
    }

    /**
     * A sound with some places mended. Closing the result closes the source.
     *
     * @param places in order, in frames of the source, each of {@link #LONGEST} frames at most
     */
    public static SampleSource of(SampleSource source, List<Span> places) throws IOException {
        return new PlaceMender(source, places);
    }

    @Override
    void mark(BitSet unknown, float[] channel, int c, int from, int to, boolean goingOn) {
        // one that goes on was mended whole with the block before
        if (!goingOn) {
            unknown.set(from, to);
        }
    }

    @Override
    void repair(float[] channel, BitSet unknown) {
        for (int from = unknown.nextSetBit(0); from >= 0; ) {
            int to = unknown.nextClearBit(from);
            mend(channel, from, to);
            from = unknown.nextSetBit(to);
        }
    }

    private void mend(float[] channel, int from, int to) {
        int start = Math.max(0, from - AROUND);
        double[] samples = new double[Math.min(window, to + AROUND) - start];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = channel[start + i];
        }
        int order = Math.max(LEAST_ORDER, Math.min(MOST_ORDER, 2 * (to - from)));
        double[] solved = new ArInterpolation(order).across(samples, from - start, to - start);
        for (int i = 0; i < solved.length; i++) {
            channel[from + i] = (float) solved[i];
        }
    }
}

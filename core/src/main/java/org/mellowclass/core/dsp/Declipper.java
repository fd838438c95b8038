package org.mellowclass.core.dsp;

import java.io.IOException;
import java.util.BitSet;
import java.util.List;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/**
 * Draws the tops that clipping cut off anew, by {@link ArInterpolation}, which is told that a top reaches at least as far as
 * what was left of it. The repaired sound may reach over full scale; nothing outside of the places it is given is touched.
 */
public final class Declipper extends PlaceRepair {

    /** Longer tops are not guessed. */
    private static final int LONGEST_TOP = (int) Frames.ofMillis(20);
    private static final int ROUNDS = 3;
    private static final int CONTEXT = 1024;
    private static final ArInterpolation AR = new ArInterpolation(40);
    /** Resampling ripples a flat top by less than this. */
    private static final double RIPPLED_TOP = 0.92;
    /** A top that was never resampled is flat: so many samples are its very height, but for the steps of their bits. */
    private static final double FLAT_TOP = 0.998;
    private static final int FLAT = 3;

    /** Of which channels a flat top has been seen: they were never resampled, and nothing else in them is a top. */
    private final boolean[] flat;

    private Declipper(SampleSource source, List<Span> places) throws IOException {
        super(source, places, CONTEXT);
        this.flat = new boolean[source.channels()];
    }

    /**
     * A sound with its clipped places repaired. Closing the result closes the source.
     *
     * @param places where it is clipped, in order, in frames of the source
     */
    public static SampleSource of(SampleSource source, List<Span> places) throws IOException {
        return new Declipper(source, places);
    }

    @Override
    void mark(BitSet tops, float[] channel, int c, int from, int to, boolean goingOn) {
        float most = 0;
        for (int i = from; i < to; i++) {
            most = Math.max(most, Math.abs(channel[i]));
        }
        boolean flatHere = isFlat(channel, from, to, most);
        flat[c] |= flatHere;
        if (flat[c] && !flatHere) {
            return;
        }
        double top = most * (flatHere ? FLAT_TOP : RIPPLED_TOP);
        for (int i = from; i < to; ) {
            int end = i;
            while (end < to && channel[end] * Math.signum(channel[i]) >= top) {
                end++;
            }
            boolean fromBefore = i == CONTEXT && channel[i - 1] * Math.signum(channel[i]) >= top;
            if (end > i && i < CONTEXT + BLOCK && end - i <= LONGEST_TOP && !fromBefore) {
                tops.set(i, end);
            }
            i = Math.max(end, i + 1);
        }
    }

    private static boolean isFlat(float[] channel, int from, int to, float most) {
        int equal = 0;
        for (int i = from; i < to && equal < FLAT; i++) {
            equal += Math.abs(channel[i]) == most ? 1 : 0;
        }
        return equal == FLAT;
    }

    @Override
    void repair(float[] channel, BitSet tops) {
        double[] samples = new double[window];
        for (int i = 0; i < window; i++) {
            samples[i] = channel[i];
        }
        int[] unknown = tops.stream().toArray();
        for (int round = 0; round < ROUNDS; round++) {
            double[] solved = AR.round(samples, unknown);
            for (int u = 0; u < unknown.length; u++) {
                int i = unknown[u];
                boolean further = solved[u] * Math.signum(channel[i]) > Math.abs(channel[i]);
                samples[i] = further ? solved[u] : channel[i];
            }
        }
        for (int i : unknown) {
            channel[i] = (float) samples[i];
        }
    }
}

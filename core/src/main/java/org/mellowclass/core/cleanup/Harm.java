package org.mellowclass.core.cleanup;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

import org.mellowclass.core.dsp.Biquad;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/**
 * What cleaning did to a voice that it should not: each number is measured from the powers of 10 ms before and after, and is nothing near zero.
 *
 * @param onsetLossDb  how much more is lost of the first 80 ms of words than of all speech
 * @param dullnessDb   how much more is lost above 4 kHz than of all speech, where there was sound
 * @param pumpingDb    how much the gain moves between one twentieth of a second and the next inside pauses, at its 90th percentile
 * @param roomRaisedDb how much nearer the room has come to the voice; below zero if it lies further under it
 */
public record Harm(double onsetLossDb, double dullnessDb, double pumpingDb, double roomRaisedDb) {

    /** What is worth a warning. */
    public enum Kind { WORDS_CHOPPED, DULL, PUMPING, ROOM_RAISED }

    private static final double CHOPPED_DB = 3;
    private static final double DULL_DB = 6;
    private static final double PUMPING_DB = 6;
    private static final double RAISED_DB = 1;

    private static final int FRAME = (int) Frames.ofMillis(10);
    private static final int ONSET_FRAMES = 8;
    private static final int BLOCK_FRAMES = 5;
    /** What closes and opens at the edges of a pause is not pumping. */
    private static final int EDGE_FRAMES = 35;
    private static final double SPEECH_WITHIN = Decibels.toPower(-20);
    private static final double OVER_ROOM = Decibels.toPower(10);
    private static final double HIGH_HZ = 4000;
    private static final double PERCENTILE = 0.9;
    private static final double NOTHING = 1e-14;

    public Set<Kind> kinds() {
        Set<Kind> kinds = EnumSet.noneOf(Kind.class);
        if (onsetLossDb > CHOPPED_DB) {
            kinds.add(Kind.WORDS_CHOPPED);
        }
        if (dullnessDb > DULL_DB) {
            kinds.add(Kind.DULL);
        }
        if (pumpingDb > PUMPING_DB) {
            kinds.add(Kind.PUMPING);
        }
        if (roomRaisedDb > RAISED_DB) {
            kinds.add(Kind.ROOM_RAISED);
        }
        return kinds;
    }

    /** @param heard what is known of the take before */
    public static Harm of(Opening before, Opening after, Heard heard) throws IOException {
        Powers was = Powers.of(before);
        Powers is = Powers.of(after);
        int count = Math.min(was.count, is.count);
        boolean[] quiet = new boolean[count];
        for (Span pause : heard.pauses()) {
            Arrays.fill(quiet, Math.min(count, (int) (pause.startFrame() / FRAME)), Math.min(count, (int) (pause.endFrame() / FRAME)), true);
        }
        double loudest = 0;
        for (int i = 0; i < count; i++) {
            loudest = Math.max(loudest, was.all[i]);
        }
        Ratio voice = new Ratio();
        Ratio room = new Ratio();
        double roomHigh = 0;
        int roomFrames = 0;
        for (int i = 0; i < count; i++) {
            if (quiet[i]) {
                room.add(was.all[i], is.all[i]);
                roomHigh += was.high[i];
                roomFrames++;
            } else if (was.all[i] > loudest * SPEECH_WITHIN) {
                voice.add(was.all[i], is.all[i]);
            }
        }
        double audibleHigh = roomFrames == 0 ? 0 : roomHigh / roomFrames * OVER_ROOM;
        Ratio high = new Ratio();
        Ratio onsets = new Ratio();
        double audible = room.before / Math.max(1, roomFrames) * OVER_ROOM;
        for (int i = 0; i < count; i++) {
            if (!quiet[i] && was.high[i] > audibleHigh) {
                high.add(was.high[i], is.high[i]);
            }
            if (i > 0 && quiet[i - 1] && !quiet[i]) {
                for (int j = i; j < Math.min(count, i + ONSET_FRAMES); j++) {
                    if (was.all[j] > audible) {
                        onsets.add(was.all[j], is.all[j]);
                    }
                }
            }
        }
        double voiceDb = voice.db();
        return new Harm(onsets.isEmpty() ? 0 : voiceDb - onsets.db(), high.isEmpty() ? 0 : voiceDb - high.db(), pumping(was, is, quiet),
                room.isEmpty() ? 0 : room.db() - voiceDb);
    }

    private static double pumping(Powers was, Powers is, boolean[] quiet) {
        List<Double> steps = new ArrayList<>();
        int inside = 0;
        double last = Double.NaN;
        for (int i = 0; i + BLOCK_FRAMES <= quiet.length; i++) {
            inside = quiet[i] ? inside + 1 : 0;
            boolean within = inside > EDGE_FRAMES && i + EDGE_FRAMES < quiet.length && quiet[i + EDGE_FRAMES];
            if (!within) {
                last = Double.NaN;
            } else if (inside % BLOCK_FRAMES == 0) {
                Ratio ratio = new Ratio();
                for (int j = i; j < i + BLOCK_FRAMES; j++) {
                    ratio.add(was.all[j], is.all[j]);
                }
                double gain = ratio.isEmpty() ? Double.NaN : ratio.db();
                if (!Double.isNaN(last) && !Double.isNaN(gain)) {
                    steps.add(Math.abs(gain - last));
                }
                last = gain;
            }
        }
        double[] sorted = steps.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        return sorted.length == 0 ? 0 : sorted[(int) (PERCENTILE * (sorted.length - 1))];
    }

    private static final class Ratio {
        private double before;
        private double after;

        void add(double was, double is) {
            before += was;
            after += is;
        }

        boolean isEmpty() {
            return before <= NOTHING || after <= 0;
        }

        double db() {
            return isEmpty() ? 0 : Decibels.ofPower(after / before);
        }
    }

    /** Powers by frames of 10 ms, as they are and above 4 kHz; of all channels together. */
    private static final class Powers implements SampleSink {

        private final Biquad[][] filters;
        private final float[] filtered = new float[8192];
        private float[] all = new float[1024];
        private float[] high = new float[1024];
        private int count;
        private int filled;

        private Powers(int channels) {
            filters = new Biquad[channels][];
            for (int c = 0; c < channels; c++) {
                filters[c] = new Biquad[] {Biquad.highPass(HIGH_HZ, 0.5412), Biquad.highPass(HIGH_HZ, 1.3066)};
            }
        }

        static Powers of(Opening opening) throws IOException {
            try (SampleSource sound = opening.open()) {
                Powers powers = new Powers(sound.channels());
                SampleSink.drain(sound, powers);
                return powers;
            }
        }

        @Override
        public void accept(float[][] block, int frames) {
            int start = filled;
            int startCount = count;
            for (int c = 0; c < filters.length; c++) {
                System.arraycopy(block[c], 0, filtered, 0, frames);
                for (Biquad filter : filters[c]) {
                    filter.process(filtered, 0, frames);
                }
                filled = start;
                count = startCount;
                add(block[c], frames, c == 0);
            }
        }

        private void add(float[] samples, int frames, boolean first) {
            for (int i = 0; i < frames; i++) {
                if (count == all.length) {
                    all = Arrays.copyOf(all, 2 * count);
                    high = Arrays.copyOf(high, 2 * count);
                }
                if (first && filled == 0) {
                    all[count] = 0;
                    high[count] = 0;
                }
                all[count] += samples[i] * samples[i];
                high[count] += filtered[i] * filtered[i];
                if (++filled == FRAME) {
                    filled = 0;
                    count++;
                }
            }
        }
    }
}

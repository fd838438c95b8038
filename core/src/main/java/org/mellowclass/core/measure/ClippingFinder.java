package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.Supplier;

import org.mellowclass.core.sound.SampleSink;

/**
 * Finds clipping: runs of three or more consecutive samples at or beyond 0.999 of full scale; and, in a channel that never
 * comes so far, flat tops: runs of three or more that are equal to the bit, at the channel's own highest or lowest sample.
 * Must see the sound before any resampling, which rounds flat tops off. Frames are at the sound's own rate.
 *
 * <p>A slow wave that was rounded to whole steps has short flat tops too, but it comes to them and leaves them in steps as
 * small as the rounding. So flat tops count only if at least one of them has an edge of more than two.
 */
public final class ClippingFinder implements SampleSink {

    /** What to look for. */
    public enum Search {
        /** Lossy files: their decoder rounds flat tops off, and equal samples mean nothing. */
        FULL_SCALE_ONLY,
        FULL_SCALE_AND_FLAT_TOPS
    }

    private static final float FULL_SCALE = 0.999f;
    private static final int SHORTEST_RUN = 3;
    private static final int SPOTS_A_SECOND = 20;
    /** Of one channel and kind: more than anybody mends by hand. */
    private static final int MOST_SPOTS = 1000;
    /** Flat tops under −26 dBFS are no overload. */
    private static final float LOWEST_TOP = 0.05f;
    /** An edge is steep if its sample lies so much, as a part of the top, under it; well over the steps of 16 bits. */
    private static final float STEEP = 0.005f;
    /** And steeper than the steps it was rounded to: a tone of 8 bits comes to its top in one or two. */
    private static final float STEPS = 2.5f;
    private static final float FINE = 0.0005f;

    private final int spotGap;
    private final RunsOfChannel[] channels;

    private ClippingFinder(int channels, int sampleRate, Search search, boolean everyRun) {
        this.spotGap = sampleRate / SPOTS_A_SECOND;
        this.channels = new RunsOfChannel[channels];
        for (int c = 0; c < channels; c++) {
            this.channels[c] = new RunsOfChannel(search == Search.FULL_SCALE_AND_FLAT_TOPS, () -> everyRun ? new EveryRun() : new SpotRuns(spotGap));
        }
    }

    /** Finds {@link #spots}, in memory that does not depend on the sound. @param sampleRate frames a second */
    public static ClippingFinder ofSpots(int channels, int sampleRate, Search search) {
        return new ClippingFinder(channels, sampleRate, search, false);
    }

    /** Finds {@link #runs}, each of which takes memory: for sound that is trusted. @param sampleRate frames a second */
    public static ClippingFinder ofRuns(int channels, int sampleRate, Search search) {
        return new ClippingFinder(channels, sampleRate, search, true);
    }

    @Override
    public void accept(float[][] block, int frames) {
        for (int c = 0; c < channels.length; c++) {
            channels[c].accept(block[c], frames);
        }
    }

    /** Every run of every channel in the order of their places, once the sound has ended. */
    public List<ClippedRun> runs() {
        List<ClippedRun> runs = new ArrayList<>();
        for (int c = 0; c < channels.length; c++) {
            int channel = c;
            channels[c].tell((start, end, count) -> runs.add(new ClippedRun(channel, start, (int) (end - start))));
        }
        runs.sort(Comparator.comparingLong(ClippedRun::startFrame).thenComparingInt(ClippedRun::channel));
        return runs;
    }

    /** The runs as spots: those within 50 ms of each other are one, and where there are thousands, those that are near. */
    public List<ClippedSpot> spots() {
        List<ClippedSpot> parts = new ArrayList<>();
        for (RunsOfChannel channel : channels) {
            channel.tell((start, end, count) -> parts.add(new ClippedSpot(start, end, count)));
        }
        parts.sort(Comparator.comparingLong(ClippedSpot::startFrame));
        List<ClippedSpot> spots = new ArrayList<>();
        for (ClippedSpot part : parts) {
            ClippedSpot last = spots.isEmpty() ? null : spots.get(spots.size() - 1);
            if (last != null && part.startFrame() - last.endFrame() <= spotGap) {
                spots.set(spots.size() - 1, new ClippedSpot(last.startFrame(), Math.max(last.endFrame(), part.endFrame()), last.runs() + part.runs()));
            } else {
                spots.add(part);
            }
        }
        return List.copyOf(spots);
    }

    /** Hears of stretches that hold so many runs. */
    @FunctionalInterface
    private interface Listener {
        void stretch(long startFrame, long endFrame, long runs);
    }

    private static final class RunsOfChannel {

        private final Runs full;
        private final FlatTops[] tops;
        private long position;
        private int run;

        RunsOfChannel(boolean flatTopsToo, Supplier<Runs> keeping) {
            full = keeping.get();
            tops = flatTopsToo ? new FlatTops[] {new FlatTops(1, keeping.get()), new FlatTops(-1, keeping.get())} : new FlatTops[0];
        }

        void accept(float[] samples, int count) {
            int length = run;
            for (int i = 0; i < count; i++) {
                if (Math.abs(samples[i]) >= FULL_SCALE) {
                    length++;
                } else if (length > 0) {
                    add(full, position + i - length, length);
                    length = 0;
                }
            }
            run = length;
            for (FlatTops top : tops) {
                top.accept(samples, count, position);
            }
            position += count;
        }

        void tell(Listener listener) {
            full.tell(listener);
            if (run >= SHORTEST_RUN) {
                listener.stretch(position - run, position, 1);
            }
            for (FlatTops top : tops) {
                top.tell(listener, position);
            }
        }
    }

    /** Runs at the highest sample so far of one channel, upwards or downwards; a higher one makes them nothing. */
    private static final class FlatTops {

        private final int direction;
        private final Runs runs;
        private float top;
        private float before = Float.NaN;
        private float last = Float.NaN;
        private int run;
        private float steepest;
        /** The finest step of its samples so far, until it is known to be finer than any that matters. */
        private float step = Float.MAX_VALUE;

        FlatTops(int direction, Runs runs) {
            this.direction = direction;
            this.runs = runs;
        }

        void accept(float[] samples, int count, long position) {
            for (int i = 0; i < count; i++) {
                float sample = direction * samples[i];
                if (step > FINE && sample != last && !Float.isNaN(last)) {
                    step = Math.min(step, Math.abs(sample - last));
                }
                if (sample > top) {
                    top = sample;
                    runs.clear();
                    steepest = 0;
                    before = last;
                    run = 1;
                } else if (sample == top && top > 0) {
                    before = run == 0 ? last : before;
                    run++;
                } else if (run > 0) {
                    end(position + i, sample);
                }
                last = sample;
            }
        }

        private void end(long endFrame, float after) {
            if (run >= SHORTEST_RUN) {
                add(runs, endFrame - run, run);
                steepest = Math.max(steepest, Math.max(fall(before), fall(after)));
            }
            run = 0;
        }

        /** How far the top falls to a sample beside it; before the first and behind the last nothing is known. */
        private float fall(float beside) {
            return Float.isNaN(beside) ? 0 : top - beside;
        }

        void tell(Listener listener, long position) {
            if (top < FULL_SCALE && top >= LOWEST_TOP) {
                boolean runsOut = run >= SHORTEST_RUN;
                if (Math.max(steepest, runsOut ? fall(before) : 0) > Math.max(STEEP * top, STEPS * step)) {
                    runs.tell(listener);
                    if (runsOut) {
                        listener.stretch(position - run, position, 1);
                    }
                }
            }
        }
    }

    private static void add(Runs runs, long startFrame, int length) {
        if (length >= SHORTEST_RUN) {
            runs.add(startFrame, length);
        }
    }

    /** Runs in the order of their places. */
    private interface Runs {
        void add(long startFrame, int length);

        void clear();

        void tell(Listener listener);
    }

    private static final class EveryRun implements Runs {

        private final List<ClippedSpot> runs = new ArrayList<>();

        @Override
        public void add(long startFrame, int length) {
            runs.add(new ClippedSpot(startFrame, startFrame + length, 1));
        }

        @Override
        public void clear() {
            runs.clear();
        }

        @Override
        public void tell(Listener listener) {
            runs.forEach(run -> listener.stretch(run.startFrame(), run.endFrame(), 1));
        }
    }

    /** Runs that are near each other as one stretch; where there are too many stretches, what is near is taken wider. */
    private static final class SpotRuns implements Runs {

        private final long[] starts = new long[MOST_SPOTS];
        private final long[] ends = new long[MOST_SPOTS];
        private final long[] runs = new long[MOST_SPOTS];
        private final int finestGap;
        private long gap;
        private int count;

        SpotRuns(int gap) {
            this.finestGap = gap;
            this.gap = gap;
        }

        @Override
        public void add(long startFrame, int length) {
            if (count == MOST_SPOTS && startFrame - ends[count - 1] > gap) {
                widen();
            }
            put(startFrame, startFrame + length, 1);
        }

        private void put(long start, long end, long many) {
            if (count > 0 && start - ends[count - 1] <= gap) {
                ends[count - 1] = end;
                runs[count - 1] += many;
            } else {
                starts[count] = start;
                ends[count] = end;
                runs[count++] = many;
            }
        }

        private void widen() {
            while (count == MOST_SPOTS) {
                gap *= 2;
                count = 0;
                for (int i = 0; i < MOST_SPOTS; i++) {
                    put(starts[i], ends[i], runs[i]);
                }
            }
        }

        @Override
        public void clear() {
            count = 0;
            gap = finestGap;
        }

        @Override
        public void tell(Listener listener) {
            for (int i = 0; i < count; i++) {
                listener.stretch(starts[i], ends[i], runs[i]);
            }
        }
    }
}

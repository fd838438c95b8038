package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

import org.mellowclass.core.sound.SampleSink;

/**
 * Finds clipping: runs of three or more consecutive samples at or beyond 0.999 of full scale; and, in a channel that never
 * comes so far, flat tops: runs of three or more that are equal to the bit, at the channel's own highest or lowest sample.
 * Must see the sound before any resampling, which rounds flat tops off. Frames are at the sound's own rate.
 *
 * <p>A slow wave that was rounded to whole steps has short flat tops too, but it comes to them and leaves them in steps as
 * small as the rounding. So flat tops count only if at least one of them has a steep edge.
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
    /** Flat tops under −26 dBFS are no overload. */
    private static final float LOWEST_TOP = 0.05f;
    /** An edge is steep if its sample lies so much, as a part of the top, under it; well over the steps of 16 bits. */
    private static final float STEEP = 0.005f;

    private final int sampleRate;
    private final RunsOfChannel[] channels;

    /** @param sampleRate frames a second */
    public ClippingFinder(int channels, int sampleRate, Search search) {
        this.sampleRate = sampleRate;
        this.channels = new RunsOfChannel[channels];
        for (int c = 0; c < channels; c++) {
            this.channels[c] = new RunsOfChannel(search == Search.FULL_SCALE_AND_FLAT_TOPS);
        }
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
            channels[c].addTo(runs, c);
        }
        runs.sort(Comparator.comparingLong(ClippedRun::startFrame).thenComparingInt(ClippedRun::channel));
        return runs;
    }

    /** The runs as spots: those within 50 ms of each other are one. */
    public List<ClippedSpot> spots() {
        List<ClippedSpot> spots = new ArrayList<>();
        for (ClippedRun run : runs()) {
            ClippedSpot last = spots.isEmpty() ? null : spots.get(spots.size() - 1);
            if (last != null && run.startFrame() - last.endFrame() <= sampleRate / SPOTS_A_SECOND) {
                spots.set(spots.size() - 1, new ClippedSpot(last.startFrame(), Math.max(last.endFrame(), run.endFrame()),
                        last.runs() + 1));
            } else {
                spots.add(new ClippedSpot(run.startFrame(), run.endFrame(), 1));
            }
        }
        return List.copyOf(spots);
    }

    private static final class RunsOfChannel {

        private final Runs full = new Runs();
        private final FlatTops[] tops;
        private long position;
        private int run;

        RunsOfChannel(boolean flatTopsToo) {
            tops = flatTopsToo ? new FlatTops[] {new FlatTops(1), new FlatTops(-1)} : new FlatTops[0];
        }

        void accept(float[] samples, int count) {
            int length = run;
            for (int i = 0; i < count; i++) {
                if (Math.abs(samples[i]) >= FULL_SCALE) {
                    length++;
                } else if (length > 0) {
                    full.add(position + i - length, length);
                    length = 0;
                }
            }
            run = length;
            for (FlatTops top : tops) {
                top.accept(samples, count, position);
            }
            position += count;
        }

        void addTo(List<ClippedRun> runs, int channel) {
            full.copyTo(runs, channel);
            if (run >= SHORTEST_RUN) {
                runs.add(new ClippedRun(channel, position - run, run));
            }
            for (FlatTops top : tops) {
                top.addTo(runs, channel, position);
            }
        }
    }

    /** Runs at the highest sample so far of one channel, upwards or downwards; a higher one makes them nothing. */
    private static final class FlatTops {

        private final int direction;
        private final Runs runs = new Runs();
        private float top;
        private float before = Float.NaN;
        private float last = Float.NaN;
        private int run;
        private boolean steep;

        FlatTops(int direction) {
            this.direction = direction;
        }

        void accept(float[] samples, int count, long position) {
            for (int i = 0; i < count; i++) {
                float sample = direction * samples[i];
                if (sample > top) {
                    top = sample;
                    runs.clear();
                    steep = false;
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
                runs.add(endFrame - run, run);
                // before the first sample and behind the last nothing is known, and NaN compares as not steep
                steep |= top - before > STEEP * top || top - after > STEEP * top;
            }
            run = 0;
        }

        void addTo(List<ClippedRun> all, int channel, long position) {
            if (top < FULL_SCALE && top >= LOWEST_TOP) {
                boolean runsOut = run >= SHORTEST_RUN;
                if (steep || runsOut && top - before > STEEP * top) {
                    runs.copyTo(all, channel);
                    if (runsOut) {
                        all.add(new ClippedRun(channel, position - run, run));
                    }
                }
            }
        }
    }

    /** Starts and lengths, twelve bytes a run: even two clipped hours have room. */
    private static final class Runs {

        private long[] starts = new long[16];
        private int[] lengths = new int[16];
        private int count;

        void add(long start, int length) {
            if (length < SHORTEST_RUN) {
                return;
            }
            if (count == starts.length) {
                starts = Arrays.copyOf(starts, 2 * count);
                lengths = Arrays.copyOf(lengths, 2 * count);
            }
            starts[count] = start;
            lengths[count++] = length;
        }

        void clear() {
            count = 0;
        }

        void copyTo(List<ClippedRun> all, int channel) {
            for (int i = 0; i < count; i++) {
                all.add(new ClippedRun(channel, starts[i], lengths[i]));
            }
        }
    }
}

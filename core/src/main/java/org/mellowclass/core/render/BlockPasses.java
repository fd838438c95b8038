package org.mellowclass.core.render;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.DoubleStream;

import org.mellowclass.core.dsp.Limiter;
import org.mellowclass.core.dsp.TruePeakInterpolator;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;

/**
 * Measures the mix of a timeline second by second: a second in which the same is heard as in an earlier timeline is known already, and the
 * limiter is run only over the seconds in which it acts. Differs from a pass over the whole by what the weighting filters still know of the
 * sound before the last 100 ms, less than 1e-9 of its power.
 */
public final class BlockPasses implements Mastering.Passes {

    private static final int BLOCK_FRAMES = Frames.RATE;
    private static final int RUN_UP_FRAMES = Frames.RATE / 10;
    /** In whole hops, so that they stand where they stand in the whole. */
    private static final int LIMITED_RUN_UP_FRAMES = 2 * RUN_UP_FRAMES;
    private static final int RUN_OUT_FRAMES = TruePeakInterpolator.TAPS;
    private static final int CHANNELS = 2;
    /** The limiter sees the wave finer than the meter: what comes so near to its ceiling may be over it there. */
    private static final double NEARLY = 0.9;

    /** What is heard of a timeline around one second of it: with the same parts, the second sounds the same. */
    public record Window(long startFrame, long frames, List<Part> parts) {
        record Part(double gainDb, double pan, List<VolumeCurve.Point> curve, List<Clip> clips) {
        }
    }

    /**
     * One second, measured.
     *
     * @param hops mean squares as {@link LoudnessMeter#telling} tells them
     * @param peak the highest amplitude of the wave in it and close to it
     */
    public record Block(double[] hops, double peak) {
    }

    /** What has been measured before. */
    public interface Known {

        Optional<Block> find(Window window);

        void keep(Window window, Block block);
    }

    private final Timeline timeline;
    private final Mixer mixer;
    private final Known known;
    private final List<Block> blocks = new ArrayList<>();

    public BlockPasses(Timeline timeline, Mixer mixer, Known known) {
        this.timeline = timeline;
        this.mixer = mixer;
        this.known = known;
    }

    @Override
    public Mastering.Result unfinished() throws IOException {
        if (blocks.isEmpty()) {
            for (long start = 0; start < timeline.endFrame(); start += BLOCK_FRAMES) {
                blocks.add(block(start));
            }
        }
        return together(blocks, 0);
    }

    @Override
    public Mastering.Result finished(double gainDb, double ceilingDbtp) throws IOException {
        unfinished();
        double power = Decibels.toPower(gainDb);
        double gain = Decibels.toAmplitude(gainDb);
        double ceiling = NEARLY * Decibels.toAmplitude(ceilingDbtp);
        List<Block> finished = new ArrayList<>();
        double reductionDb = 0;
        for (int at = 0; at < blocks.size(); ) {
            if (!acts(at, gain, ceiling)) {
                finished.add(louder(blocks.get(at), power, gain));
                at++;
                continue;
            }
            int end = at + 1;
            while (end < blocks.size() && acts(end, gain, ceiling)) {
                end++;
            }
            reductionDb = Math.max(reductionDb, limit(at, end, gainDb, ceilingDbtp, finished));
            at = end;
        }
        return together(finished, reductionDb);
    }

    /** Whether the limiter's memory, which is shorter than a block, reaches from a peak over its ceiling into a block. */
    private boolean acts(int at, double gain, double ceiling) {
        for (int i = Math.max(0, at - 1); i <= Math.min(blocks.size() - 1, at + 1); i++) {
            if (blocks.get(i).peak * gain > ceiling) {
                return true;
            }
        }
        return false;
    }

    private static Block louder(Block block, double power, double gain) {
        double[] hops = block.hops.clone();
        for (int i = 0; i < hops.length; i++) {
            hops[i] *= power;
        }
        return new Block(hops, block.peak * gain);
    }

    /** Adds the limited blocks of a run; returns how deep the limiter reached. */
    private double limit(int from, int to, double gainDb, double ceilingDbtp, List<Block> into) throws IOException {
        long start = (long) from * BLOCK_FRAMES;
        long first = Math.max(0, start - LIMITED_RUN_UP_FRAMES);
        Limiter limiter = new Limiter(mixer.from(first), gainDb, ceilingDbtp);
        Meters meters = new Meters(limiter, start - first);
        List<double[]> hops = new ArrayList<>();
        for (int i = from; i < to; i++) {
            hops.add(meters.hops(framesFrom((long) i * BLOCK_FRAMES)));
        }
        double peak = meters.peak();
        hops.forEach(block -> into.add(new Block(block, peak)));
        return limiter.deepestReductionDb();
    }

    private Block block(long start) throws IOException {
        Window window = window(start);
        Optional<Block> earlier = known.find(window);
        if (earlier.isPresent()) {
            return earlier.get();
        }
        long first = Math.max(0, start - RUN_UP_FRAMES);
        Meters meters = new Meters(mixer.from(first), start - first);
        Block block = new Block(meters.hops(window.frames), meters.peak());
        known.keep(window, block);
        return block;
    }

    private long framesFrom(long start) {
        return Math.min(BLOCK_FRAMES, timeline.endFrame() - start);
    }

    /** The meters of one stretch of sound, once their filters know what came before it. */
    private static final class Meters {

        private final SampleSource source;
        private final LoudnessMeter loudness = new LoudnessMeter(CHANNELS);
        private final TruePeakMeter truePeak = new TruePeakMeter(CHANNELS);
        private final float[][] samples = new float[CHANNELS][LoudnessMeter.HOP_FRAMES];

        Meters(SampleSource source, long runUpFrames) throws IOException {
            this.source = source;
            take(runUpFrames);
            truePeak.forgetPeak();
        }

        double[] hops(long frames) throws IOException {
            DoubleStream.Builder hops = DoubleStream.builder();
            loudness.telling(hops);
            take(frames);
            return hops.build().toArray();
        }

        /** Of what was taken, with the wave between its last samples and what follows. */
        double peak() throws IOException {
            for (float[] channel : samples) {
                Arrays.fill(channel, 0, RUN_OUT_FRAMES, 0f);
            }
            source.read(samples, 0, RUN_OUT_FRAMES);
            truePeak.accept(samples, RUN_OUT_FRAMES);
            return truePeak.highest();
        }

        private void take(long frames) throws IOException {
            for (long left = frames; left > 0; ) {
                int read = source.read(samples, 0, (int) Math.min(left, samples[0].length));
                loudness.accept(samples, read);
                truePeak.accept(samples, read);
                left -= read;
            }
        }
    }

    private static Mastering.Result together(List<Block> blocks, double reductionDb) {
        LoudnessMeter loudness = new LoudnessMeter(CHANNELS);
        double peak = 0;
        for (Block block : blocks) {
            for (double hop : block.hops) {
                loudness.addHop(hop);
            }
            peak = Math.max(peak, block.peak);
        }
        return new Mastering.Result(loudness.integrated(),
                peak > 0 ? OptionalDouble.of(Decibels.ofAmplitude(peak)) : OptionalDouble.empty(), reductionDb);
    }

    /** What a curve does in a stretch, however it goes on outside of it. */
    private static List<VolumeCurve.Point> gains(VolumeCurve curve, long from, long to) {
        List<VolumeCurve.Point> gains = new ArrayList<>(curve.points().subList(curve.after(from), curve.after(to)));
        gains.add(0, new VolumeCurve.Point(from, curve.gainDbAt(from)));
        gains.add(new VolumeCurve.Point(to, curve.gainDbAt(to)));
        return gains.stream().allMatch(gain -> gain.gainDb() == 0) ? List.of() : gains;
    }

    private Window window(long start) {
        long from = Math.max(0, start - RUN_UP_FRAMES);
        long to = start + BLOCK_FRAMES + RUN_OUT_FRAMES;
        List<Window.Part> parts = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            List<Clip> clips = track.clips().stream().filter(clip -> clip.firstHeard() < to && clip.heardUntil() > from).map(clip -> clip.withId(0)).toList();
            if (!track.muted() && !clips.isEmpty()) {
                parts.add(new Window.Part(track.gainDb(), track.pan(), gains(track.curve(), from, to), clips));
            }
        }
        return new Window(start, framesFrom(start), parts);
    }
}

package org.mellowclass.core.soundcheck;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.measure.BurstFinder;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.ClippingFinder;
import org.mellowclass.core.measure.DeadAirFinder;
import org.mellowclass.core.measure.DropoutFinder;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.measure.HumMeter;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.MeanOfChannels;
import org.mellowclass.core.measure.Pauses;
import org.mellowclass.core.measure.SampleStatistics;
import org.mellowclass.core.measure.SibilanceMeter;
import org.mellowclass.core.measure.SoundEdges;
import org.mellowclass.core.measure.SpeechLevels;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.Alongside;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Tap;

/**
 * All that the sound check wants to know of one sound, measured in one pass. Spans are in frames at 48 kHz.
 *
 * @param rangeLu      loudness range; empty for silence
 * @param workingDbfs  the median one-second peak while somebody speaks; empty for silence
 * @param voiceToRoomLu loudness minus the loudness of the pauses; empty where there is no pause, or a silent one
 * @param sibilants    harsh "s" in a minute; empty where nobody speaks
 * @param room         the levels of the quietest stretches in dBFS by steps of {@link #ROOM_STEP_HZ}, for a picture; null in what an earlier version measured
 */
public record HeardSound(int channels, long frames, OptionalDouble loudnessLufs, OptionalDouble rangeLu, OptionalDouble truePeakDbtp, List<ClippedSpot> clipped,
                         OptionalDouble workingDbfs, OptionalDouble roomDbfs, OptionalDouble voiceToRoomLu, Optional<HumFinder.Hum> hum, List<Span> deadAir,
                         Optional<SoundEdges> edges, List<Span> dropouts, StereoFinder.Noticed sides, OptionalDouble correlation,
                         List<Span> clicks, List<Span> pops, OptionalDouble sibilants, List<Span> harsh, List<Double> room) {

    public static final double ROOM_STEP_HZ = 5;
    private static final double ROOM_TOP_HZ = 600;
    private static final double LOWEST_DBFS = -120;

    /** Reads a sound at any rate to its end, in constant memory; on two threads, since somebody waits. */
    public static HeardSound of(SampleSource sound, ClippingFinder.Search search) throws IOException {
        ClippingFinder clipping = ClippingFinder.ofSpots(sound.channels(), sound.sampleRate(), search);
        TruePeakMeter truePeak = new TruePeakMeter(sound.channels());
        Meters meters = new Meters(sound.channels());
        try (SampleSource converted = Resampler.to(Frames.RATE, new Tap(sound, clipping, truePeak)); Alongside bursts = new Alongside(meters::hearBursts)) {
            SampleSink.drain(converted, meters::hearLevels, bursts);
        }
        return meters.heard(truePeak.truePeakDbtp(), clipping.spots());
    }

    /** The meters of a sound at 48 kHz. */
    public static final class Meters implements SampleSink {

        private final int channels;
        private final SpeechLevels levels;
        private final SecondPeaks peaks = new SecondPeaks();
        private final HumMeter hum = new HumMeter();
        private final DropoutFinder dropouts = new DropoutFinder();
        private final StereoFinder stereo;
        private final BurstFinder bursts = new BurstFinder();
        private final SibilanceMeter sibilance = new SibilanceMeter();
        private final MeanOfChannels mean = new MeanOfChannels();

        public Meters(int channels) {
            this.channels = channels;
            levels = new SpeechLevels(channels);
            stereo = new StereoFinder(channels);
        }

        @Override
        public void accept(float[][] block, int frames) {
            hearLevels(block, frames);
            hearBursts(block, frames);
        }

        private void hearLevels(float[][] block, int frames) {
            levels.accept(block, frames);
            peaks.accept(block, frames);
            dropouts.accept(block, frames);
            stereo.accept(block, frames);
        }

        /** What is short, or hums: heard in the mean of all channels. */
        private void hearBursts(float[][] block, int frames) {
            float[][] one = mean.of(block, frames);
            hum.accept(one, frames);
            bursts.accept(one, frames);
            sibilance.accept(one, frames);
        }

        /** The loudness over time, see {@link LoudnessMeter#momentary()}. */
        double[] momentary() {
            return levels.loudness().momentary();
        }

        /** Of the sound that has ended. */
        public HeardSound heard(OptionalDouble truePeakDbtp, List<ClippedSpot> clipped) {
            Pauses pauses = levels.pauses();
            LoudnessMeter loudness = levels.loudness();
            OptionalDouble distance = loudness.integrated().isPresent() && pauses.noiseFloorLufs().isPresent() && !pauses.spans().isEmpty()
                    ? OptionalDouble.of(loudness.integrated().getAsDouble() - pauses.noiseFloorLufs().getAsDouble()) : OptionalDouble.empty();
            // a sound without a room was switched off between words, not dropped
            List<Span> dropped = pauses.noiseFloorDbfs().isPresent() ? dropouts.dropouts() : List.of();
            return new HeardSound(channels, levels.frames(), loudness.integrated(), loudness.range(), truePeakDbtp, List.copyOf(clipped),
                    WorkingLevel.measured(peaks.dbfs), pauses.noiseFloorDbfs(), distance, hum.hum(),
                    DeadAirFinder.find(loudness, levels.frames(), DeadAirFinder.ordinaryPauseFrames()), levels.edges(), dropped, stereo.noticed(), stereo.correlation(),
                    bursts.clicks(), bursts.pops(), sibilance.perMinute(), sibilance.harsh(), room(hum.spectrum()));
        }
    }

    /** Of each step the highest level. */
    private static List<Double> room(double[] spectrum) {
        List<Double> levels = new ArrayList<>();
        int bins = (int) (ROOM_STEP_HZ / HumMeter.hertzOfBin());
        for (int from = bins; from + bins <= spectrum.length && from * HumMeter.hertzOfBin() < ROOM_TOP_HZ; from += bins) {
            double most = Arrays.stream(spectrum, from, from + bins).max().orElse(0);
            levels.add(Math.max(LOWEST_DBFS, Math.rint(10 * Decibels.ofPower(most)) / 10));
        }
        return levels;
    }

    /** The highest sample of each second that is not silent. */
    private static final class SecondPeaks {

        private final List<Double> dbfs = new ArrayList<>();
        private float peak;
        private int inSecond;

        void accept(float[][] block, int frames) {
            for (int done = 0; done < frames; ) {
                int part = Math.min(frames - done, Frames.RATE - inSecond);
                for (float[] channel : block) {
                    peak = Math.max(peak, SampleStatistics.largest(channel, done, done + part));
                }
                done += part;
                inSecond += part;
                if (inSecond == Frames.RATE) {
                    if (peak > 0) {
                        dbfs.add(Decibels.ofAmplitude(peak));
                    }
                    peak = 0;
                    inSecond = 0;
                }
            }
        }
    }
}

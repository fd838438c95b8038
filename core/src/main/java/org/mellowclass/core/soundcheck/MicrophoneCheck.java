package org.mellowclass.core.soundcheck;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalDouble;

import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.ClippingFinder;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.Pauses;
import org.mellowclass.core.measure.SpeechLevels;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Tap;

/**
 * What a test sentence tells of a microphone and its room, and the one thing to do about it.
 *
 * @param levelDbfs       the working level, a median of peaks, see {@link WorkingLevel}; empty if nothing was heard
 * @param noiseDbfs       the noise floor of the room; empty for digital silence
 * @param voiceToRoomLu   gated loudness of the voice minus K-weighted loudness of the room; empty if either has no value
 * @param humHz           50 or 60 if mains hum stands out; 0 otherwise
 * @param overs           clipped runs
 * @param oneSided        whether one of two channels is silent
 * @param advice          what to do first
 */
public record MicrophoneCheck(OptionalDouble levelDbfs, OptionalDouble noiseDbfs, OptionalDouble voiceToRoomLu, int humHz, int overs,
                              boolean oneSided, Advice advice) {

    /** In the order of their weight: what comes first hides what comes later. */
    public enum Advice { NOTHING_HEARD, TOO_HOT, TOO_QUIET, ROOM_LOUD, ONE_SIDED, HUM, LITTLE_QUIET, LITTLE_HOT, ROOM_NOT_QUIET, GOOD }

    /** Below this, a voice is told from nothing by standing out from its room. */
    private static final double QUIET_DBFS = -40;
    private static final double VOICE_LU = 6;
    private static final double ROOM_GOOD_LU = 25;
    private static final double ROOM_CHECK_LU = 15;
    /** A channel this far under the other one is silent. */
    private static final double SILENT_SIDE_DB = 40;

    public Verdict verdict() {
        return switch (advice) {
            case GOOD -> Verdict.GOOD;
            case LITTLE_QUIET, LITTLE_HOT, ROOM_NOT_QUIET, ONE_SIDED, HUM -> Verdict.CHECK;
            default -> Verdict.FIX;
        };
    }

    /**
     * Measures a test sentence and the room before it.
     *
     * @param sentence some seconds of one or two channels at any rate; closed behind
     */
    public static MicrophoneCheck of(SampleSource sentence) throws IOException {
        int channels = sentence.channels();
        ClippingFinder clipping = ClippingFinder.ofSpots(channels, sentence.sampleRate(), ClippingFinder.Search.FULL_SCALE_AND_FLAT_TOPS);
        SpeechLevels levels = new SpeechLevels(channels);
        Heard heard = new Heard(channels);
        try (SampleSource converted = Resampler.to(Frames.RATE, new Tap(sentence, clipping))) {
            SampleSink.drain(converted, levels, heard);
        }
        Pauses pauses = levels.pauses();
        LoudnessMeter loudness = levels.loudness();
        OptionalDouble level = WorkingLevel.measured(heard.secondPeaks());
        OptionalDouble distance = loudness.integrated().isPresent() && pauses.noiseFloorLufs().isPresent()
                ? OptionalDouble.of(loudness.integrated().getAsDouble() - pauses.noiseFloorLufs().getAsDouble()) : OptionalDouble.empty();
        int hum = HumFinder.find(heard.room(pauses)).map(HumFinder.Hum::mainsHz).orElse(0);
        int overs = (int) clipping.spots().stream().mapToLong(ClippedSpot::runs).sum();
        Advice advice = advice(level, distance, hum, overs, heard.oneSided());
        return new MicrophoneCheck(advice == Advice.NOTHING_HEARD ? OptionalDouble.empty() : level, pauses.noiseFloorDbfs(), distance, hum, overs, heard.oneSided(), advice);
    }

    static Advice advice(OptionalDouble level, OptionalDouble distance, int hum, int overs, boolean oneSided) {
        boolean standsOut = distance.isPresent() && distance.getAsDouble() >= VOICE_LU;
        if (level.isEmpty() || level.getAsDouble() < QUIET_DBFS && !standsOut) {
            return Advice.NOTHING_HEARD;
        }
        WorkingLevel band = WorkingLevel.STANDARD;
        double dbfs = level.getAsDouble();
        if (overs > 0 || dbfs > band.highCheck()) {
            return Advice.TOO_HOT;
        }
        if (dbfs < band.lowCheck()) {
            return Advice.TOO_QUIET;
        }
        if (distance.isPresent() && distance.getAsDouble() < ROOM_CHECK_LU) {
            return Advice.ROOM_LOUD;
        }
        if (oneSided) {
            return Advice.ONE_SIDED;
        }
        if (hum > 0) {
            return Advice.HUM;
        }
        if (band.verdict(dbfs) == Verdict.CHECK) {
            return dbfs < band.lowGood() ? Advice.LITTLE_QUIET : Advice.LITTLE_HOT;
        }
        return distance.isPresent() && distance.getAsDouble() < ROOM_GOOD_LU ? Advice.ROOM_NOT_QUIET : Advice.GOOD;
    }

    /** The sentence as it comes: some seconds fit into memory. */
    private static final class Heard implements SampleSink {

        private final double[] squares;
        private final List<Double> peaks = new ArrayList<>();
        private float[] mean = new float[Frames.RATE];
        private int frames;
        private double peak;

        Heard(int channels) {
            squares = new double[channels];
        }

        @Override
        public void accept(float[][] block, int length) {
            if (frames + length > mean.length) {
                mean = Arrays.copyOf(mean, Math.max(2 * mean.length, frames + length));
            }
            for (int i = 0; i < length; i++) {
                float sum = 0;
                for (int c = 0; c < squares.length; c++) {
                    float sample = block[c][i];
                    squares[c] += (double) sample * sample;
                    peak = Math.max(peak, Math.abs(sample));
                    sum += sample;
                }
                mean[frames++] = sum / squares.length;
                if (frames % Frames.RATE == 0) {
                    peaks.add(Decibels.ofAmplitude(peak));
                    peak = 0;
                }
            }
        }

        List<Double> secondPeaks() {
            return peaks;
        }

        boolean oneSided() {
            return squares.length == 2 && Decibels.ofPower(Math.max(squares[0], squares[1]))
                    - Decibels.ofPower(Math.min(squares[0], squares[1])) > SILENT_SIDE_DB;
        }

        /** The longest pause. */
        float[] room(Pauses pauses) {
            return pauses.spans().stream().max(Comparator.comparingLong(Span::frames))
                    .map(span -> Arrays.copyOfRange(mean, (int) span.startFrame(), (int) Math.min(span.endFrame(), frames)))
                    .orElse(new float[0]);
        }
    }
}

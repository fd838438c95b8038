package org.mellowclass.core.soundcheck;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Stream;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;

/** Judges what was measured on a finished mixdown against the house sound. */
public record SoundCheck(List<Reading> readings) {

    private static final double LOUDNESS_GOOD_LU = 1;
    private static final double LOUDNESS_CHECK_LU = 2;
    private static final double TRUE_PEAK_CHECK_DBTP = -0.3;
    private static final int CLIPPING_CHECK_RUNS = 10;
    private static final long DEAD_AIR_CHECK_FRAMES = Frames.ofSeconds(4);
    private static final double LIMITED_CHECK_DB = 6;
    private static final double LENGTH_CHECK_PART = 0.10;

    /**
     * What the sound check judges.
     *
     * @param loudnessLufs  integrated loudness of the mixdown; empty for silence
     * @param truePeakDbtp  its true peak; empty for silence
     * @param clippedPlaces every clipped spot of the takes used, where it stands in the episode
     * @param deadAir       stretches of dead air over two seconds
     * @param frames        length of the mixdown at 48 kHz
     * @param finishing     what was done to it
     */
    public record Measured(OptionalDouble loudnessLufs, OptionalDouble truePeakDbtp, List<ClippedSpot> clippedPlaces,
                           List<Span> deadAir, long frames, Mastering finishing) {
    }

    public SoundCheck {
        readings = List.copyOf(readings);
    }

    public static SoundCheck of(Measured measured, HouseSound house) {
        return new SoundCheck(Stream.concat(Stream.of(loudness(measured, house), truePeak(measured, house), clipping(measured),
                deadAir(measured), length(measured, house)), finishing(measured).stream()).toList());
    }

    /** How many readings have this verdict. */
    public long count(Verdict verdict) {
        return readings.stream().filter(reading -> reading.verdict() == verdict).count();
    }

    private static Reading loudness(Measured measured, HouseSound house) {
        if (measured.loudnessLufs().isEmpty()) {
            return new Reading(Reading.Kind.LOUDNESS, Verdict.DOES_NOT_APPLY, null, List.of());
        }
        double value = measured.loudnessLufs().getAsDouble();
        double off = Math.abs(value - house.loudnessLufs());
        Verdict verdict = off <= LOUDNESS_GOOD_LU ? Verdict.GOOD : off <= LOUDNESS_CHECK_LU ? Verdict.CHECK : Verdict.FIX;
        return new Reading(Reading.Kind.LOUDNESS, verdict, value, List.of());
    }

    private static Reading truePeak(Measured measured, HouseSound house) {
        if (measured.truePeakDbtp().isEmpty()) {
            return new Reading(Reading.Kind.TRUE_PEAK, Verdict.DOES_NOT_APPLY, null, List.of());
        }
        double value = measured.truePeakDbtp().getAsDouble();
        Verdict verdict = value <= house.ceilingDbtp() ? Verdict.GOOD
                : value <= TRUE_PEAK_CHECK_DBTP ? Verdict.CHECK : Verdict.FIX;
        return new Reading(Reading.Kind.TRUE_PEAK, verdict, value, List.of());
    }

    private static Reading clipping(Measured measured) {
        long runs = measured.clippedPlaces().stream().mapToLong(ClippedSpot::runs).sum();
        Verdict verdict = runs == 0 ? Verdict.GOOD : runs <= CLIPPING_CHECK_RUNS ? Verdict.CHECK : Verdict.FIX;
        return new Reading(Reading.Kind.CLIPPING, verdict, (double) runs, together(measured.clippedPlaces()));
    }

    /** Spots that are closer than a second are one place to look at. */
    private static List<Span> together(List<ClippedSpot> spots) {
        return Span.joined(spots.stream().map(spot -> new Span(spot.startFrame(), spot.endFrame())).toList(), Frames.RATE - 1);
    }

    private static Reading deadAir(Measured measured) {
        long longest = measured.deadAir().stream().map(Span::frames).max(Comparator.naturalOrder()).orElse(0L);
        Verdict verdict = longest == 0 ? Verdict.GOOD : longest <= DEAD_AIR_CHECK_FRAMES ? Verdict.CHECK : Verdict.FIX;
        return new Reading(Reading.Kind.DEAD_AIR, verdict, Frames.toSeconds(longest), measured.deadAir());
    }

    /** Only where there is something to say. */
    private static Optional<Reading> finishing(Measured measured) {
        Mastering done = measured.finishing();
        if (done.gainDb() >= Mastering.MOST_GAIN_DB) {
            return Optional.of(new Reading(Reading.Kind.RAISED, Verdict.FIX, done.gainDb(), List.of()));
        }
        return done.reductionDb() > LIMITED_CHECK_DB ? Optional.of(new Reading(Reading.Kind.LIMITED, Verdict.CHECK, done.reductionDb(), List.of())) : Optional.empty();
    }

    private static Reading length(Measured measured, HouseSound house) {
        long frames = measured.frames();
        double allowance = LENGTH_CHECK_PART;
        Verdict verdict;
        if (frames >= house.shortestFrames() && frames <= house.longestFrames()) {
            verdict = Verdict.GOOD;
        } else if (frames >= house.shortestFrames() * (1 - allowance) && frames <= house.longestFrames() * (1 + allowance)) {
            verdict = Verdict.CHECK;
        } else {
            verdict = Verdict.FIX;
        }
        return new Reading(Reading.Kind.LENGTH, verdict, Frames.toSeconds(frames), List.of());
    }
}

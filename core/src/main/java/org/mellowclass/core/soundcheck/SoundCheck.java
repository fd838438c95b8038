package org.mellowclass.core.soundcheck;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Stream;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.render.Mastering;

/** Judges what was measured on a finished mixdown, and on the takes that it plays, against the house sound. */
public record SoundCheck(List<Reading> readings) {

    private static final double LIMITED_CHECK_DB = 6;
    private static final Set<Reading.Kind> ALWAYS_TOLD = Set.of(Reading.Kind.LOUDNESS, Reading.Kind.LENGTH);
    /** What is mended first: words before levels, levels before trifles. */
    private static final List<Reading.Kind> BY_USE = List.of(Reading.Kind.DROPOUTS, Reading.Kind.CLIPPING, Reading.Kind.WORKING_LEVEL, Reading.Kind.VOICES_EVEN,
            Reading.Kind.MUSIC_UNDER_VOICE, Reading.Kind.HUM, Reading.Kind.ROOM_NOISE, Reading.Kind.DEAD_AIR, Reading.Kind.SIDES, Reading.Kind.LENGTH, Reading.Kind.STARTS_AND_ENDS);

    /**
     * What the sound check judges.
     *
     * @param mixdown       the finished sound
     * @param clippedPlaces every clipped spot of the takes used, where it stands in the episode
     * @param voices        the takes in which somebody speaks
     * @param music         how far music lies under them; null if it was not measured
     * @param finishing     what was done to it
     */
    public record Measured(HeardSound mixdown, List<ClippedSpot> clippedPlaces, Voices voices, MusicUnderVoice music, Mastering finishing) {
    }

    public SoundCheck {
        readings = List.copyOf(readings);
    }

    public static SoundCheck of(Measured measured, HouseSound house) {
        HeardSound mix = measured.mixdown;
        Voices voices = measured.voices;
        return new SoundCheck(Stream.concat(Stream.of(Readings.loudness(mix.loudnessLufs(), mix.channels(), house), Readings.truePeak(mix.truePeakDbtp(), house),
                Readings.clipping(measured.clippedPlaces), voices.workingLevel(), Readings.range(mix.rangeLu(), mix.frames()), voices.even(),
                Readings.musicUnderVoice(measured.music == null ? OptionalDouble.empty() : measured.music.least(), measured.music == null ? List.of() : measured.music.places()),
                voices.roomNoise(), voices.hum(), Readings.deadAir(mix.deadAir()), Readings.edges(mix.edges(), mix.frames()), voices.dropouts(), voices.sides(),
                Readings.bursts(mix.clicks(), mix.pops(), mix.frames()), Readings.sibilance(mix.sibilants(), mix.harsh()), Readings.length(mix.frames(), house)),
                finishing(measured.finishing).stream()).toList());
    }

    /** How many readings have this verdict. */
    public long count(Verdict verdict) {
        return readings.stream().filter(reading -> reading.verdict() == verdict).count();
    }

    /** What is always told, and all that is not good: the worst first, and of these what it helps most to mend. */
    public List<Reading> told() {
        return readings.stream().filter(SoundCheck::isTold).sorted(Comparator.comparing(Reading::verdict).reversed().thenComparing(SoundCheck::byUse)).toList();
    }

    private static int byUse(Reading reading) {
        int place = BY_USE.indexOf(reading.kind());
        return place < 0 ? BY_USE.size() : place;
    }

    /** What is good, or has nothing to judge, and need not be looked at. */
    public List<Reading> others() {
        return readings.stream().filter(reading -> !isTold(reading)).toList();
    }

    private static boolean isTold(Reading reading) {
        return ALWAYS_TOLD.contains(reading.kind()) || reading.verdict() == Verdict.CHECK || reading.verdict() == Verdict.FIX;
    }

    /** Only where there is something to say. */
    private static Optional<Reading> finishing(Mastering done) {
        if (done.gainDb() >= Mastering.MOST_GAIN_DB) {
            return Optional.of(new Reading(Reading.Kind.RAISED, Verdict.FIX, done.gainDb(), List.of()));
        }
        return done.reductionDb() > LIMITED_CHECK_DB ? Optional.of(new Reading(Reading.Kind.LIMITED, Verdict.CHECK, done.reductionDb(), List.of())) : Optional.empty();
    }
}

package org.mellowclass.core.soundcheck;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Stream;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.timeline.Timeline;

/**
 * Judges what was measured on a finished mixdown, and on the takes that it plays, against the house sound.
 *
 * @param pictures what the readings draw; none in a check of an earlier version
 */
public record SoundCheck(List<Reading> readings, Pictures pictures) {


    /** Where nothing was read. */
    public static final SoundCheck NONE = new SoundCheck(List.of(), Pictures.NONE);

    private static final int MEND_FIRST = 3;
    private static final double LIMITED_CHECK_DB = 6;
    private static final Set<Reading.Kind> ALWAYS_TOLD = Set.of(Reading.Kind.LOUDNESS, Reading.Kind.LENGTH);
    /** What is mended first: words before levels, levels before trifles. */
    private static final List<Reading.Kind> BY_USE = List.of(Reading.Kind.DROPOUTS, Reading.Kind.CLIPPING, Reading.Kind.WORKING_LEVEL, Reading.Kind.VOICES_EVEN,
            Reading.Kind.MUSIC_UNDER_VOICE, Reading.Kind.HUM, Reading.Kind.ROOM_NOISE, Reading.Kind.DEAD_AIR, Reading.Kind.SIDES, Reading.Kind.CREDITS, Reading.Kind.PARTS, Reading.Kind.JOINS, Reading.Kind.LENGTH,
            Reading.Kind.STARTS_AND_ENDS);

    /**
     * What the sound check judges.
     *
     * @param mixdown       the finished sound
     * @param timeline      the page that it is the mix of
     * @param clippedPlaces every clipped spot of the takes used, where it stands in the episode
     * @param voices        the takes in which somebody speaks
     * @param music         how far music lies under them; null if it was not measured
     * @param finishing     what was done to it
     */
    public record Measured(HeardSound mixdown, Timeline timeline, List<ClippedSpot> clippedPlaces, Voices voices, MusicUnderVoice music, Mastering finishing, Pictures pictures) {
    }

    public SoundCheck {
        readings = List.copyOf(readings);
        pictures = pictures == null ? Pictures.NONE : pictures;
    }

    /** @param parts names of the parts that the brief asks for */
    public static SoundCheck of(Measured measured, HouseSound house, List<String> parts) {
        HeardSound mix = measured.mixdown;
        Voices voices = measured.voices;
        return new SoundCheck(Stream.concat(Stream.of(Readings.loudness(mix.loudnessLufs(), mix.channels(), house), Readings.truePeak(mix.truePeakDbtp(), house),
                Readings.clipping(measured.clippedPlaces), voices.workingLevel(), Readings.range(mix.rangeLu(), mix.frames()), voices.voicesEven(),
                Readings.musicUnderVoice(measured.music == null ? OptionalDouble.empty() : measured.music.least(), measured.music == null ? List.of() : measured.music.places()),
                voices.roomNoise(), voices.hum(), Readings.deadAir(mix.deadAir()), Readings.edges(mix.edges(), mix.frames()), Readings.joins(measured.timeline, mix.clicks()), voices.dropouts(), voices.sides(),
                Readings.bursts(mix.clicks(), mix.pops(), mix.frames()), Readings.sibilance(mix.sibilants(), mix.harsh()), Readings.length(mix.frames(), house),
                Readings.parts(measured.timeline, parts), voices.credits()), finishing(measured.finishing).stream()).toList(), measured.pictures);
    }

    /** How many readings have this verdict. */
    public long count(Verdict verdict) {
        return readings.stream().filter(reading -> reading.verdict() == verdict).count();
    }

    /** What is always told, and all that is not good: the worst first, and of these what it helps most to mend. */
    public List<Reading> told() {
        return readings.stream().filter(SoundCheck::isTold).sorted(Comparator.comparing(Reading::verdict).reversed().thenComparing(SoundCheck::byUse)).toList();
    }

    /** The three things that it helps most to mend; fewer where fewer are not good. */
    public List<Reading> mendFirst() {
        return told().stream().filter(reading -> reading.verdict().compareTo(Verdict.GOOD) > 0).limit(MEND_FIRST).toList();
    }

    /** All but {@link #mendFirst()}, what is not good before what is. */
    public List<Reading> rest() {
        List<Reading> first = mendFirst();
        return Stream.concat(told().stream(), others().stream()).filter(reading -> !first.contains(reading)).toList();
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

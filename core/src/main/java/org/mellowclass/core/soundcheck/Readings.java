package org.mellowclass.core.soundcheck;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.measure.SoundEdges;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.Reading.Kind;
import org.mellowclass.core.timeline.Timeline;

/** What each measured number means, against the house sound: all limits of the sound check stand here. */
public final class Readings {

    private static final double LOUDNESS_GOOD_LU = 1;
    private static final double LOUDNESS_CHECK_LU = 2;
    /** One channel is heard from two loudspeakers. */
    private static final double MONO_LU = 3;
    private static final double TRUE_PEAK_CHECK_DBTP = -0.3;
    private static final long CLIPPING_CHECK_RUNS = 10;
    private static final double RANGE_GOOD_LU = 10;
    private static final double RANGE_CHECK_LU = 14;
    private static final long RANGE_LEAST_FRAMES = Frames.ofSeconds(60);
    private static final double EVEN_GOOD_LU = 3;
    private static final double EVEN_CHECK_LU = 6;
    static final double MUSIC_GOOD_LU = 12;
    private static final double MUSIC_CHECK_LU = 8;
    private static final double ROOM_GOOD_LU = 25;
    private static final double ROOM_CHECK_LU = 15;
    private static final double HUM_UNDER_VOICE_DB = 40;
    private static final long DEAD_AIR_CHECK_FRAMES = Frames.ofSeconds(4);
    static final long LEAD_LEAST = Frames.ofMillis(200);
    static final long LEAD_MOST = Frames.ofSeconds(1);
    private static final long TRAIL_LEAST = Frames.ofMillis(500);
    static final long TRAIL_MOST = Frames.ofSeconds(3);
    private static final long CUT_OFF = Frames.ofMillis(20);
    private static final long AT_JOIN = Frames.ofMillis(10);
    private static final double CORRELATION_GOOD = 0.2;
    private static final double BURSTS_A_MINUTE = 2;
    private static final double SIBILANTS_A_MINUTE = 12;
    private static final double LENGTH_CHECK_PART = 0.10;
    private static final double SECONDS_A_MINUTE = 60;

    private Readings() {
    }

    /** Those of a sound of which nothing is known but itself. */
    public static List<Reading> ofSound(HeardSound heard, HouseSound house) {
        return Stream.of(loudness(heard.loudnessLufs(), heard.channels(), house), truePeak(heard.truePeakDbtp(), house), clipping(heard.clipped()),
                workingLevel(heard.workingDbfs(), List.of()), range(heard.rangeLu(), heard.frames()), roomNoise(heard.voiceToRoomLu(), List.of()), hum(heard.hum(), heard.loudnessLufs(), List.of()),
                deadAir(heard.deadAir()), edges(heard.edges(), heard.frames()), dropouts(heard.dropouts()), sides(heard.sides(), heard.correlation(), heard.channels(), List.of()),
                bursts(heard.clicks(), heard.pops(), heard.frames()), sibilance(heard.sibilants(), heard.harsh())).toList();
    }

    private static Reading none(Kind kind) {
        return new Reading(kind, Verdict.DOES_NOT_APPLY, null, List.of());
    }

    private static Reading reading(Kind kind, boolean good, boolean check, double value, List<Span> places) {
        return new Reading(kind, good ? Verdict.GOOD : check ? Verdict.CHECK : Verdict.FIX, value, places);
    }

    /** @param channels one channel is to be 3 LU below what two are to be */
    public static Reading loudness(OptionalDouble lufs, int channels, HouseSound house) {
        if (lufs.isEmpty()) {
            return none(Kind.LOUDNESS);
        }
        double off = Math.abs(lufs.getAsDouble() - house.loudnessLufs() + (channels == 1 ? MONO_LU : 0));
        return reading(Kind.LOUDNESS, off <= LOUDNESS_GOOD_LU, off <= LOUDNESS_CHECK_LU, lufs.getAsDouble(), List.of());
    }

    public static Reading truePeak(OptionalDouble dbtp, HouseSound house) {
        return dbtp.isEmpty() ? none(Kind.TRUE_PEAK)
                : reading(Kind.TRUE_PEAK, dbtp.getAsDouble() <= house.ceilingDbtp(), dbtp.getAsDouble() <= TRUE_PEAK_CHECK_DBTP, dbtp.getAsDouble(), List.of());
    }

    /** @param spots where they stand in what is checked */
    public static Reading clipping(List<ClippedSpot> spots) {
        long runs = spots.stream().mapToLong(ClippedSpot::runs).sum();
        return reading(Kind.CLIPPING, runs == 0, runs <= CLIPPING_CHECK_RUNS, runs,
                together(spots.stream().map(spot -> new Span(spot.startFrame(), spot.endFrame())).toList()));
    }

    /** Places that are closer than a second are one to look at. */
    private static List<Span> together(List<Span> places) {
        return Span.joined(places, Frames.RATE - 1);
    }

    /** @param places where that is heard */
    public static Reading workingLevel(OptionalDouble dbfs, List<Span> places) {
        return dbfs.isEmpty() ? none(Kind.WORKING_LEVEL) : new Reading(Kind.WORKING_LEVEL, WorkingLevel.STANDARD.verdict(dbfs.getAsDouble()), dbfs.getAsDouble(), places);
    }

    public static Reading range(OptionalDouble lu, long frames) {
        if (lu.isEmpty()) {
            return none(Kind.LOUDNESS_RANGE);
        }
        return frames < RANGE_LEAST_FRAMES ? new Reading(Kind.LOUDNESS_RANGE, Verdict.DOES_NOT_APPLY, lu.getAsDouble(), List.of())
                : reading(Kind.LOUDNESS_RANGE, lu.getAsDouble() <= RANGE_GOOD_LU, lu.getAsDouble() <= RANGE_CHECK_LU, lu.getAsDouble(), List.of());
    }

    /** @param apartLu between the loudest speaker and the softest; empty with fewer than two */
    public static Reading voicesEven(OptionalDouble apartLu, List<Span> places) {
        return apartLu.isEmpty() ? none(Kind.VOICES_EVEN)
                : reading(Kind.VOICES_EVEN, apartLu.getAsDouble() <= EVEN_GOOD_LU, apartLu.getAsDouble() <= EVEN_CHECK_LU, apartLu.getAsDouble(), places);
    }

    /** @param underLu how far music lies under the voice where it is nearest; empty where nobody speaks over music */
    public static Reading musicUnderVoice(OptionalDouble underLu, List<Span> places) {
        return underLu.isEmpty() ? none(Kind.MUSIC_UNDER_VOICE)
                : reading(Kind.MUSIC_UNDER_VOICE, underLu.getAsDouble() >= MUSIC_GOOD_LU, underLu.getAsDouble() >= MUSIC_CHECK_LU, underLu.getAsDouble(), places);
    }

    public static Reading roomNoise(OptionalDouble voiceToRoomLu, List<Span> places) {
        return voiceToRoomLu.isEmpty() ? none(Kind.ROOM_NOISE)
                : reading(Kind.ROOM_NOISE, voiceToRoomLu.getAsDouble() >= ROOM_GOOD_LU, voiceToRoomLu.getAsDouble() >= ROOM_CHECK_LU, voiceToRoomLu.getAsDouble(), places);
    }

    /** Its value is the frequency of the mains that was found; null where there is none. */
    public static Reading hum(Optional<HumFinder.Hum> hum, OptionalDouble voiceLufs, List<Span> places) {
        if (hum.isEmpty()) {
            return new Reading(Kind.HUM, voiceLufs.isEmpty() ? Verdict.DOES_NOT_APPLY : Verdict.GOOD, null, List.of());
        }
        boolean near = voiceLufs.isPresent() && hum.get().levelDbfs() > voiceLufs.getAsDouble() - HUM_UNDER_VOICE_DB;
        return reading(Kind.HUM, false, !near, hum.get().mainsHz(), places);
    }

    public static Reading deadAir(List<Span> spans) {
        long longest = spans.stream().map(Span::frames).max(Comparator.naturalOrder()).orElse(0L);
        return reading(Kind.DEAD_AIR, longest == 0, longest <= DEAD_AIR_CHECK_FRAMES, Frames.toSeconds(longest), spans);
    }

    /** Its value is the time before the first sound, in seconds. */
    public static Reading edges(Optional<SoundEdges> edges, long frames) {
        if (edges.isEmpty()) {
            return none(Kind.STARTS_AND_ENDS);
        }
        long lead = edges.get().leadFrames();
        long trail = edges.get().trailFrames();
        List<Span> places = new ArrayList<>();
        if (lead < LEAD_LEAST || lead > LEAD_MOST) {
            places.add(new Span(0, Math.min(frames, Frames.RATE)));
        }
        if (trail < TRAIL_LEAST || trail > TRAIL_MOST) {
            places.add(new Span(Math.max(0, frames - Math.max(2 * Frames.RATE, trail)), frames));
        }
        // music may begin at once; what ends at full level was cut off
        return reading(Kind.STARTS_AND_ENDS, places.isEmpty(), trail >= CUT_OFF, Frames.toSeconds(lead), places);
    }

    /** A join clicks where a click of the mix lies at an edge of a clip. */
    public static Reading joins(Timeline timeline, List<Span> clicks) {
        List<Long> edges = timeline.tracks().stream().filter(track -> !track.muted()).flatMap(track -> track.clips().stream())
                .flatMap(clip -> Stream.of(clip.startFrame(), clip.endFrame())).toList();
        if (edges.isEmpty()) {
            return none(Kind.JOINS);
        }
        List<Span> clicking = clicks.stream().filter(click -> edges.stream().anyMatch(edge -> click.startFrame() - AT_JOIN <= edge && edge <= click.endFrame() + AT_JOIN)).toList();
        return reading(Kind.JOINS, clicking.isEmpty(), false, clicking.size(), clicking);
    }

    /** Parts are flagged by their names; where none is flagged, they may be there all the same. */
    public static Reading parts(Timeline timeline, List<String> asked) {
        Set<String> flagged = timeline.flags().stream().map(flag -> flag.name().strip().toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
        long missing = asked.stream().filter(part -> !flagged.contains(part.strip().toLowerCase(Locale.ROOT))).count();
        return asked.isEmpty() ? none(Kind.PARTS) : reading(Kind.PARTS, missing == 0, missing == asked.size(), missing, List.of());
    }

    /**
     * Whether somebody is to be thanked for what a crew has brought in itself, only people know.
     *
     * @param uncredited where sounds are heard that are nobody's voice and that have no credit
     */
    public static Reading credits(boolean anyOfOthers, List<Span> uncredited) {
        return !anyOfOthers ? none(Kind.CREDITS) : reading(Kind.CREDITS, uncredited.isEmpty(), true, uncredited.size(), uncredited);
    }

    public static Reading dropouts(List<Span> spans) {
        return reading(Kind.DROPOUTS, spans.isEmpty(), false, spans.size(), spans);
    }

    /** Its value is the correlation of both sides. */
    public static Reading sides(StereoFinder.Noticed noticed, OptionalDouble correlation, int channels, List<Span> places) {
        if (channels != 2) {
            return none(Kind.SIDES);
        }
        boolean silentSide = noticed == StereoFinder.Noticed.LEFT_SILENT || noticed == StereoFinder.Noticed.RIGHT_SILENT;
        if (correlation.isEmpty()) {
            return silentSide ? new Reading(Kind.SIDES, Verdict.FIX, null, places) : none(Kind.SIDES);
        }
        return reading(Kind.SIDES, !silentSide && correlation.getAsDouble() >= CORRELATION_GOOD, !silentSide && correlation.getAsDouble() >= 0, correlation.getAsDouble(), places);
    }

    /** Its value is how many clicks and pops there are; it never asks for more than a look. */
    public static Reading bursts(List<Span> clicks, List<Span> pops, long frames) {
        int count = clicks.size() + pops.size();
        boolean few = count <= Math.max(1, BURSTS_A_MINUTE * Frames.toSeconds(frames) / SECONDS_A_MINUTE);
        return reading(Kind.BURSTS, few, true, count, Stream.concat(clicks.stream(), pops.stream()).sorted(Comparator.comparingLong(Span::startFrame)).toList());
    }

    /** Its value is how many there are in a minute. */
    public static Reading sibilance(OptionalDouble perMinute, List<Span> places) {
        return perMinute.isEmpty() ? none(Kind.SIBILANCE) : reading(Kind.SIBILANCE, perMinute.getAsDouble() <= SIBILANTS_A_MINUTE, true, perMinute.getAsDouble(), places);
    }

    public static Reading length(long frames, HouseSound house) {
        return reading(Kind.LENGTH, frames >= house.shortestFrames() && frames <= house.longestFrames(),
                frames >= house.shortestFrames() * (1 - LENGTH_CHECK_PART) && frames <= house.longestFrames() * (1 + LENGTH_CHECK_PART), Frames.toSeconds(frames), List.of());
    }
}

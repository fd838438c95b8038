package org.mellowclass.core.soundcheck;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;

import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Treatment;

/** The takes in which somebody speaks, as they are heard in an episode: of each reading, the take that is worst speaks for all. */
public final class Voices {

    /** What was measured of takes. */
    public interface Facts {

        /** Whether somebody speaks in it; otherwise it is music or an effect. */
        boolean voice(long takeId);

        /** A take by a treatment; empty until it is measured. */
        Optional<HeardSound> heard(long takeId, Treatment treatment);
    }

    /** One clip with a voice. */
    private record Spoken(Track track, Clip clip, HeardSound asRecorded, HeardSound heard) {

        /** A span of the sound where it is heard; empty where it is not. */
        Optional<Span> place(Span span) {
            long offset = clip.startFrame() - clip.sourceFrame();
            long start = Math.max(clip.startFrame(), span.startFrame() + offset);
            long end = Math.min(clip.endFrame(), span.endFrame() + offset);
            return start < end ? Optional.of(new Span(start, end)) : Optional.empty();
        }

        double lufs() {
            return heard.loudnessLufs().getAsDouble() + track.gainDb() + clip.gainDb();
        }
    }

    private final List<Spoken> spoken = new ArrayList<>();

    public Voices(Timeline timeline, Facts facts) {
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.muted() ? List.<Clip>of() : track.clips()) {
                if (clip.source() instanceof TakeSource take && facts.voice(take.takeId())) {
                    Optional<HeardSound> heard = facts.heard(take.takeId(), take.treatment());
                    Optional<HeardSound> asRecorded = facts.heard(take.takeId(), Treatment.NONE);
                    if (heard.isPresent() && asRecorded.isPresent() && heard.get().loudnessLufs().isPresent()) {
                        spoken.add(new Spoken(track, clip, asRecorded.get(), heard.get()));
                    }
                }
            }
        }
    }

    public Reading workingLevel() {
        return worst(spoken.stream().map(one -> Readings.workingLevel(one.asRecorded.workingDbfs(), List.of(one.clip.span()))).toList(),
                Readings.workingLevel(OptionalDouble.empty(), List.of()));
    }

    public Reading roomNoise() {
        return worst(spoken.stream().map(one -> Readings.roomNoise(one.heard.voiceToRoomLu(), List.of(one.clip.span()))).toList(),
                Readings.roomNoise(OptionalDouble.empty(), List.of()));
    }

    public Reading hum() {
        return worst(spoken.stream().map(one -> Readings.hum(one.heard.hum(), one.heard.loudnessLufs(), List.of(one.clip.span()))).toList(),
                Readings.hum(Optional.empty(), OptionalDouble.empty(), List.of()));
    }

    public Reading dropouts() {
        return Readings.dropouts(spoken.stream().flatMap(one -> one.heard.dropouts().stream().flatMap(span -> one.place(span).stream()))
                .sorted(Comparator.comparingLong(Span::startFrame)).toList());
    }

    /** Of takes with two sides. */
    public Reading sides() {
        return worst(spoken.stream().map(one -> Readings.sides(one.heard.sides(), one.heard.correlation(), one.heard.channels(), List.of(one.clip.span()))).toList(),
                Readings.sides(StereoFinder.Noticed.NOTHING, OptionalDouble.empty(), 1, List.of()));
    }

    /** The mean loudness of each track by the lengths of its clips; apart is the loudest from the softest. */
    public Reading even() {
        Map<Long, double[]> tracks = new TreeMap<>();
        for (Spoken one : spoken) {
            double[] sums = tracks.computeIfAbsent(one.track.id(), id -> new double[2]);
            sums[0] += one.clip.frames() * Decibels.toPower(one.lufs());
            sums[1] += one.clip.frames();
        }
        double[] lufs = tracks.values().stream().mapToDouble(sums -> Decibels.ofPower(sums[0] / sums[1])).sorted().toArray();
        if (lufs.length < 2) {
            return Readings.voicesEven(OptionalDouble.empty(), List.of());
        }
        long softest = tracks.entrySet().stream().min(Comparator.comparingDouble(entry -> entry.getValue()[0] / entry.getValue()[1])).orElseThrow().getKey();
        return Readings.voicesEven(OptionalDouble.of(lufs[lufs.length - 1] - lufs[0]),
                spoken.stream().filter(one -> one.track.id() == softest).map(one -> one.clip.span()).toList());
    }

    /** The reading with the worst verdict, with the places of all that have it. */
    private static Reading worst(List<Reading> readings, Reading none) {
        Optional<Reading> worst = readings.stream().max(Comparator.comparing(Reading::verdict));
        return worst.map(reading -> new Reading(reading.kind(), reading.verdict(), reading.value(),
                reading.verdict() == Verdict.FIX || reading.verdict() == Verdict.CHECK
                        ? Span.joined(readings.stream().filter(other -> other.verdict() == reading.verdict()).flatMap(other -> other.places().stream()).toList(), 0)
                        : List.of())).orElse(none);
    }
}

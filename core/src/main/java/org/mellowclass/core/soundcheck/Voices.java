package org.mellowclass.core.soundcheck;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.stream.Collectors;

import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.talk.EvenVoices;
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

        /** Whether somebody is thanked for it, as for every sound of the shelf. */
        boolean credited(long takeId);

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
    /** Clips that are nobody's voice. */
    private final List<Clip> others = new ArrayList<>();
    private final Facts facts;

    public Voices(Timeline timeline, Facts facts) {
        this.facts = facts;
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.muted() ? List.<Clip>of() : track.clips()) {
                if (clip.source() instanceof TakeSource take && facts.voice(take.takeId())) {
                    Optional<HeardSound> heard = facts.heard(take.takeId(), take.treatment());
                    Optional<HeardSound> asRecorded = facts.heard(take.takeId(), Treatment.NONE);
                    if (heard.isPresent() && asRecorded.isPresent() && heard.get().loudnessLufs().isPresent()) {
                        spoken.add(new Spoken(track, clip, asRecorded.get(), heard.get()));
                    }
                } else if (clip.source() instanceof TakeSource) {
                    others.add(clip);
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

    /** Of music and effects. */
    public Reading credits() {
        return Readings.credits(!others.isEmpty(), others.stream().filter(clip -> !facts.credited(clip.source().takeId())).map(Clip::span).toList());
    }

    /** The gains that bring every voice to the mean loudness of them all; empty where nobody speaks. */
    public Optional<EvenVoices> even() {
        return EvenVoices.of(spoken.stream().map(one -> new EvenVoices.Spoken(one.track, one.clip, one.lufs())).toList());
    }

    /** The mean loudness of each track on which somebody speaks, in LUFS, by track. */
    public Map<Long, Double> loudnessByTrack() {
        return even().stream().flatMap(even -> even.voices().stream())
                .collect(Collectors.toMap(EvenVoices.Voice::trackId, EvenVoices.Voice::lufs, (one, other) -> one, TreeMap::new));
    }

    /** The spectrum of the room of the voice that is nearest to its room; empty where none was measured. */
    public List<Double> roomDbfs() {
        return spoken.stream().map(Spoken::heard).filter(heard -> heard.voiceToRoomLu().isPresent() && heard.room() != null)
                .min(Comparator.comparingDouble(heard -> heard.voiceToRoomLu().getAsDouble())).map(HeardSound::room).orElse(List.of());
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

    /** The loudest voice from the softest. */
    public Reading voicesEven() {
        Map<Long, Double> tracks = loudnessByTrack();
        if (tracks.size() < 2) {
            return Readings.voicesEven(OptionalDouble.empty(), List.of());
        }
        long softest = Collections.min(tracks.entrySet(), Map.Entry.comparingByValue()).getKey();
        return Readings.voicesEven(OptionalDouble.of(Collections.max(tracks.values()) - tracks.get(softest)),
                spoken.stream().filter(one -> one.track.id() == softest).map(one -> one.clip.span()).toList());
    }

    /** The takes of which a reading is not good, with the treatments by which they are heard. */
    Set<TakeSource> notGood(Function<HeardSound, Reading> reading) {
        return spoken.stream().filter(one -> reading.apply(one.heard).verdict().compareTo(Verdict.GOOD) > 0).map(one -> (TakeSource) one.clip.source())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** Tells each sound that is heard once. */
    void heard(BiConsumer<TakeSource, HeardSound> listener) {
        Map<TakeSource, HeardSound> once = new LinkedHashMap<>();
        spoken.forEach(one -> once.putIfAbsent((TakeSource) one.clip.source(), one.heard));
        once.forEach(listener);
    }

    /** All takes that are heard, with the treatments by which they are. */
    Set<TakeSource> all() {
        return spoken.stream().map(one -> (TakeSource) one.clip.source()).collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** Whether somebody speaks in a clip. */
    boolean speaks(Clip clip) {
        return spoken.stream().anyMatch(one -> one.clip.equals(clip));
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

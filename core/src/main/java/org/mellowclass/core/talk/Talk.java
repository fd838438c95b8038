package org.mellowclass.core.talk;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

import org.mellowclass.core.measure.Pauses;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Treatment;

/**
 * Who speaks when on a page: what was measured of the takes, carried over to where their clips stand.
 *
 * @param speech where each track speaks, by track id, in order and without overlaps; tracks on which nobody speaks are missing
 */
public record Talk(Map<Long, List<Span>> speech) {

    /** Speech this short, left over by a cut, is none. */
    private static final long SHORTEST_SPEECH = 1440;

    /**
     * A stretch in which nobody speaks, between words.
     *
     * @param trackId       who spoke before it
     * @param allQuiet      whether nobody else speaks in it either
     * @param naturalFrames how long that speaker's pauses usually are
     * @param cut           what is taken out to make it as long as that; null if it is not longer
     */
    public record Pause(long trackId, Span span, boolean allQuiet, long naturalFrames, Span cut) {
    }

    /** Tracks that are left out of the mix do not speak, nor do takes that are not measured. */
    public static Talk of(Timeline timeline, TalkFacts facts) {
        Map<Long, List<Span>> speech = new TreeMap<>();
        for (Track track : timeline.tracks()) {
            List<Span> spoken = new ArrayList<>();
            for (Clip clip : track.muted() ? List.<Clip>of() : track.clips()) {
                if (clip.source() instanceof TakeSource source) {
                    facts.of(source.takeId()).filter(TalkFacts.Measured::voice)
                            .ifPresent(measured -> spoken.addAll(spoken(clip, source.treatment(), measured.pauses())));
                }
            }
            if (!spoken.isEmpty()) {
                speech.put(track.id(), Span.joined(spoken, 0));
            }
        }
        return new Talk(speech);
    }

    private static List<Span> spoken(Clip clip, Treatment treatment, List<Span> pauses) {
        long offset = clip.startFrame() - clip.sourceFrame();
        List<Span> spoken = new ArrayList<>();
        long from = clip.startFrame();
        for (Span pause : pauses) {
            long start = treatment.fromTake(pause.startFrame()) + offset;
            long end = treatment.fromTake(pause.endFrame()) + offset;
            add(spoken, from, Math.min(start, clip.endFrame()));
            from = Math.max(from, end);
        }
        add(spoken, from, clip.endFrame());
        return spoken;
    }

    private static void add(List<Span> spoken, long from, long to) {
        if (to - from >= SHORTEST_SPEECH) {
            spoken.add(new Span(from, to));
        }
    }

    /** Where anybody speaks. */
    public List<Span> anybody() {
        return Span.joined(speech.values().stream().flatMap(List::stream).toList(), 0);
    }

    /**
     * The pauses of at least {@link Pauses#SHORTEST_FRAMES} between words, in order: those of all together, and those of one track in
     * which others speak. The cut of a pause leaves 120 ms behind the last word and 80 ms before the next, or more.
     */
    public List<Pause> pauses() {
        Map<Long, List<Span>> byTrack = new TreeMap<>();
        speech.forEach((track, spoken) -> byTrack.put(track, between(spoken)));
        List<Span> together = between(anybody());
        List<Pause> pauses = new ArrayList<>();
        for (Span quiet : together) {
            long speaker = speakerBefore(quiet.startFrame());
            long natural = Pauses.natural(byTrack.get(speaker));
            pauses.add(new Pause(speaker, quiet, true, natural, cut(quiet, natural)));
        }
        byTrack.forEach((track, spans) -> spans.stream().filter(span -> !together.contains(span))
                .forEach(span -> pauses.add(new Pause(track, span, false, Pauses.natural(spans), null))));
        pauses.sort(Comparator.comparingLong((Pause pause) -> pause.span().startFrame()).thenComparing(pause -> !pause.allQuiet()));
        return pauses;
    }

    private static List<Span> between(List<Span> spoken) {
        List<Span> pauses = new ArrayList<>();
        for (int i = 1; i < spoken.size(); i++) {
            long start = spoken.get(i - 1).endFrame();
            long end = spoken.get(i).startFrame();
            if (end - start >= Pauses.SHORTEST_FRAMES) {
                pauses.add(new Span(start, end));
            }
        }
        return pauses;
    }

    private long speakerBefore(long frame) {
        return speech.entrySet().stream().filter(entry -> entry.getValue().stream().anyMatch(span -> span.endFrame() == frame))
                .map(Map.Entry::getKey).findFirst().orElseThrow();
    }

    /** What is too long about a pause: its middle, nearer to the next word, since a voice fades longer than it starts. */
    private static Span cut(Span pause, long natural) {
        long kept = Math.max(natural, Pauses.KEEP_AFTER_SPEECH + Pauses.KEEP_BEFORE_SPEECH);
        if (pause.frames() <= kept) {
            return null;
        }
        long before = kept * Pauses.KEEP_AFTER_SPEECH / (Pauses.KEEP_AFTER_SPEECH + Pauses.KEEP_BEFORE_SPEECH);
        return new Span(pause.startFrame() + before, pause.endFrame() - (kept - before));
    }
}

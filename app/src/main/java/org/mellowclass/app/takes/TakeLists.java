package org.mellowclass.app.takes;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.measure.StereoFinder;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** The take list as pages show it. */
@Component
public class TakeLists {

    private static final String CLIPPED = "CLIPPED";

    private final TakeShelf takes;
    private final TakeLanding landing;
    private final TakeMapper rows;
    private final Erasing erasing;
    private final Clock clock;

    TakeLists(TakeShelf takes, TakeLanding landing, TakeMapper rows, Erasing erasing, Clock clock) {
        this.takes = takes;
        this.landing = landing;
        this.rows = rows;
        this.erasing = erasing;
        this.clock = clock;
    }

    /**
     * One line of the take list.
     *
     * @param percent    how far it has come on its way to being ready; null if it is not on its way
     * @param safeFrames how much of an unfinished recording is safe, at 48 kHz; 0 for others
     * @param missing    what never came, at 48 kHz
     * @param levelDbfs  the working level of a recording; null for others and for silence
     * @param voices     whose voices are in it
     * @param fix        what is odd about it and can be mended with one press; null for nothing
     * @param louderDb   by how much its clips on the page should be louder, since it is much too quiet; null if they are right
     * @param toErase    whether somebody has asked for it to be erased
     */
    record TakeLine(Take take, Integer percent, boolean recording, boolean interrupted, long safeFrames, List<Span> missing,
                    Double levelDbfs, List<String> voices, String fix, Double louderDb, boolean toErase) {
    }

    private String fix(Take take, Set<Long> mended) {
        if (!take.ready() || !take.measured() || take.origin() == Take.Origin.SHELF || mended.contains(take.id())) {
            return null;
        }
        if (take.noticed() != null && take.noticed() != StereoFinder.Noticed.NOTHING) {
            return take.noticed().name();
        }
        return take.derivation() != Derivation.UNCLIPPED && !takes.clipped(take).isEmpty() ? CLIPPED : null;
    }

    private Double louder(Take take, Map<Long, Double> gains) {
        Double gain = gains.get(take.id());
        if (gain == null || !take.ready() || take.origin() == Take.Origin.SHELF) {
            return null;
        }
        try {
            OptionalDouble wanted = takes.gainForQuiet(take);
            return wanted.isPresent() && gain < wanted.getAsDouble() ? wanted.getAsDouble() : null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Double level(Take take) {
        if (!take.ready() || take.origin() != Take.Origin.RECORDED) {
            return null;
        }
        try {
            OptionalDouble level = takes.workingLevel(take);
            return level.isPresent() ? level.getAsDouble() : null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Fills in the takes of an episode that {@code Access} has let through, and whether any of them is on its way. */
    public void fill(Person viewer, Episode episode, Model model) {
        Instant now = clock.instant();
        Set<Long> asked = erasing.asked(episode.id());
        Map<Long, List<String>> voices = rows.voices(episode.id()).stream().collect(Collectors.groupingBy(TakeMapper.Voice::takeId,
                Collectors.mapping(TakeMapper.Voice::name, Collectors.toList())));
        List<Take> all = takes.ofEpisode(viewer, episode.id());
        Map<Long, Double> gains = landing.gains(episode.id());
        Set<Long> mended = all.stream().map(Take::madeFrom).filter(Objects::nonNull).collect(Collectors.toSet());
        List<TakeLine> lines = all.stream().map(take -> new TakeLine(take,
                take.state() == Take.State.ARRIVED ? takes.percent(take).orElse(0) : null, take.recording(now), take.interrupted(now),
                take.state() == Take.State.RECORDING ? takes.safeFrames(take) : 0, takes.missing(take), level(take),
                voices.getOrDefault(take.id(), List.of()), fix(take, mended), louder(take, gains), asked.contains(take.id()))).toList();
        model.addAttribute("takes", lines);
        model.addAttribute("onTheWay", lines.stream().anyMatch(line -> line.percent() != null));
    }
}

package org.mellowclass.app.room;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import org.mellowclass.app.bench.Mending;
import org.mellowclass.app.erasing.Erasing;
import org.mellowclass.app.jobs.Fault;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices.Voice;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.sounds.AsItCame;
import org.mellowclass.app.sounds.SoundMaking;
import org.mellowclass.app.sounds.TakeFindings;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeLanding.OnPage;
import org.mellowclass.app.takes.TakeLanding;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.SkylinePicture;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.MendPlaces;
import org.mellowclass.core.treatment.PlayReturned;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Step;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** The take list as pages show it. */
@Component
class TakeLists {

    private static final int PICTURE_COLUMNS = 100;

    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final TakeLanding landing;
    private final Recording recording;
    private final Voices voices;
    private final Erasing erasing;
    private final SoundMaking making;

    TakeLists(TakeShelf takes, TakeSounds sounds, TakeLanding landing, Recording recording, Voices voices, Erasing erasing, SoundMaking making) {
        this.takes = takes;
        this.sounds = sounds;
        this.landing = landing;
        this.recording = recording;
        this.voices = voices;
        this.erasing = erasing;
        this.making = making;
    }

    /**
     * One line of the take list.
     *
     * @param percent    how far it has come on its way to being ready; null if it is not on its way
     * @param unfinished how a recording that has not ended stands; null for others
     * @param missing    what never came, at 48 kHz
     * @param came       what is worth saying of the file that was brought in
     * @param levelDbfs  the working level of a recording; null for others and for silence
     * @param voices     whose voices are in it, and on which side where they are parted
     * @param unnamed    whether nobody has said yet whose voices are in it
     * @param picture    of its level; null until it is ready
     * @param fix        what can be mended on the page with one press; null for nothing
     * @param treated    how it is treated on the page
     * @param louderDb   by how much its clips on the page should be louder, since it is much too quiet; null if they are right
     * @param waitsFor   what it waits for before it is made ready; null if it does not wait
     * @param again      whether it can be tried again
     * @param toErase    whether somebody has asked for it to be erased
     * @param onPage     whether the page plays it
     */
    record TakeLine(Take take, Integer percent, Recording.Unfinished unfinished, List<Span> missing, AsItCame came, Double levelDbfs, List<Voice> voices, boolean unnamed, SkylinePicture picture,
                    Mending.Trouble fix, List<String> treated, Double louderDb, Fault waitsFor, boolean again, boolean toErase, boolean onPage) {
    }

    /** Fills in the takes of an episode that {@code Access} has let through, and whether any of them is on its way. */
    public void fill(Person viewer, Episode episode, Model model) {
        List<Take> all = takes.ofEpisode(viewer, episode.id());
        Map<Long, OnPage> onPage = landing.onPage(episode.id());
        Map<Long, TakeFindings> findings = sounds.findingsOf(episode.id());
        Map<Long, Recording.Unfinished> unfinished = recording.unfinished(all);
        Map<Long, List<Span>> missing = sounds.missingOf(episode.id());
        Map<Long, AsItCame> asTheyCame = sounds.asTheyCame(episode.id());
        Map<Long, List<Voice>> names = voices.ofEpisode(episode.id());
        Set<Long> unnamed = voices.unnamedOf(episode.id(), all.stream().map(Take::id).collect(Collectors.toSet())).stream().map(Voices.TakeName::id).collect(Collectors.toSet());
        Set<Long> asked = erasing.asked(episode.id());
        List<TakeLine> lines = all.stream().map(take -> new TakeLine(take,
                take.state() == Take.State.ARRIVED ? sounds.percent(take).orElse(0) : null, unfinished.get(take.id()),
                missing.getOrDefault(take.id(), List.of()), asTheyCame.getOrDefault(take.id(), AsItCame.WHOLE), level(take), names.getOrDefault(take.id(), List.of()), unnamed.contains(take.id()), picture(take),
                Mending.trouble(take, findings.get(take.id()), onPage.get(take.id()), names.containsKey(take.id())).orElse(null), treated(onPage.get(take.id())),
                louder(take, onPage.get(take.id())), making.waitsFor(take).orElse(null), making.canBeTriedAgain(take), asked.contains(take.id()), onPage.containsKey(take.id()))).toList();
        model.addAttribute("takes", lines);
        model.addAttribute("speakers", voices.speakers(episode));
        model.addAttribute("onTheWay", lines.stream().anyMatch(line -> line.percent() != null));
    }

    /** Codes for words, each step once. */
    private static List<String> treated(OnPage onPage) {
        return onPage == null ? List.of() : onPage.treatments().stream().flatMap(treatment -> treatment.steps().stream()).map(TakeLists::code)
                .distinct().sorted().collect(Collectors.toList());
    }

    private static String code(Step step) {
        if (step instanceof ChooseSides choose) {
            return choose.sides().name();
        }
        return step instanceof RedrawTops ? "TOPS" : step instanceof MendPlaces ? "PLACES" : step instanceof PlayReturned ? "RETURNED" : step instanceof CorrectClock ? "CLOCK" : "";
    }

    private Double louder(Take take, OnPage onPage) {
        if (onPage == null || !take.ready() || take.origin() == Take.Origin.SHELF) {
            return null;
        }
        try {
            OptionalDouble wanted = sounds.gainForQuiet(take);
            return wanted.isPresent() && onPage.lowestGainDb() < wanted.getAsDouble() ? wanted.getAsDouble() : null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private SkylinePicture picture(Take take) {
        try {
            return take.ready() ? SkylinePicture.of(sounds.smallSkyline(take, PICTURE_COLUMNS), PICTURE_COLUMNS) : null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Double level(Take take) {
        if (!take.ready() || take.origin() != Take.Origin.RECORDED) {
            return null;
        }
        try {
            OptionalDouble level = sounds.workingLevel(take);
            return level.isPresent() ? level.getAsDouble() : null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

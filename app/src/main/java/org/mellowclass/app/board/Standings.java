package org.mellowclass.app.board;

import java.util.Optional;

import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.feed.Publication;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.EpisodeStandings;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.review.MarginNotes;
import org.mellowclass.app.soundcheck.SoundChecks;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.core.soundcheck.Verdict;
import org.springframework.stereotype.Component;

/** Where an episode stands and what its viewer does next: the one clear step beside the title of every page. */
@Component("standings")
public class Standings implements EpisodeStandings {

    private final HandIns handIns;
    private final AirDesk airDesk;
    private final TakeShelf takes;
    private final SoundChecks checks;
    private final MarginNotes notes;

    Standings(HandIns handIns, AirDesk airDesk, TakeShelf takes, SoundChecks checks, MarginNotes notes) {
        this.handIns = handIns;
        this.airDesk = airDesk;
        this.takes = takes;
        this.checks = checks;
        this.notes = notes;
    }

    @Override
    public Standing of(Episode episode, boolean own) {
        Optional<HandIn> handIn = handIns.newest(episode);
        Optional<Publication> publication = airDesk.newest(episode);
        Stage stage = Stage.of(handIn.orElse(null), publication.orElse(null));
        String sentence = stage == Stage.ANOTHER_PASS ? handIn.orElseThrow().sentence() : null;
        Next next = own ? forCrew(stage, episode, handIn) : forTeacher(stage, episode, handIn);
        return new Standing(stage.name(), next.words, next.address, handIn.map(HandIn::number).orElse(null), sentence);
    }

    private record Next(String words, String address) {
    }

    private Next forCrew(Stage stage, Episode episode, Optional<HandIn> handIn) {
        String bench = "/episodes/" + episode.id() + "/bench";
        String newest = handIn.map(it -> "/hand-ins/" + it.id()).orElse(bench);
        return switch (stage) {
            case MAKING -> takes.ready(episode.id()).values().stream().allMatch(take -> take.origin() == Take.Origin.SHELF)
                    ? new Next("record your first take", "/episodes/" + episode.id() + "/record")
                    : new Next(toMend(episode.id()), bench);
            case HANDED_IN -> new Next("your teacher hears it", newest);
            case ANOTHER_PASS -> new Next(handIn.map(notes::open).filter(words -> !words.isEmpty()).orElse("mend it, then hand in"), bench);
            case CLEARED, OFF_AIR, ON_AIR -> new Next("nothing, well done", newest);
        };
    }

    /** By the newest sound check of the page. */
    private String toMend(long episodeId) {
        long fixes = checks.newest(episodeId).map(read -> read.check().count(Verdict.FIX)).orElse(-1L);
        return fixes < 0 ? "listen, mend, then hand in" : fixes == 0 ? "listen, then hand in" : fixes + (fixes == 1 ? " fix" : " fixes") + ", then hand in";
    }

    private static Next forTeacher(Stage stage, Episode episode, Optional<HandIn> handIn) {
        String board = "/classes/" + episode.classId();
        String airDesk = "/episodes/" + episode.id() + "/air";
        return switch (stage) {
            case MAKING, ANOTHER_PASS -> new Next("the crew works on it", board);
            case HANDED_IN -> new Next("hear hand-in " + handIn.orElseThrow().number(), "/hand-ins/" + handIn.orElseThrow().id());
            case CLEARED -> new Next("put it on air", airDesk);
            case ON_AIR -> new Next("it is on air", airDesk);
            case OFF_AIR -> new Next("it is off air", airDesk);
        };
    }
}

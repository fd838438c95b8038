package org.mellowclass.app.review;

import java.util.List;
import java.util.Map;
import java.util.Optional;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Laws;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Person;
import org.mellowclass.core.review.Change;
import org.mellowclass.core.review.Changes;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** What the page of a hand-in shows once that can be heard: its rows, what is said of it, what changed, and what is to be decided. */
@Component
class HandInPage {

    private final HandIns handIns;
    private final MarginNotes notes;
    private final Marks marks;
    private final EarlyListening early;
    private final Listening listening;
    private final Differences differences;
    private final Briefs briefs;
    private final Bench bench;
    private final Laws laws;

    HandInPage(HandIns handIns, MarginNotes notes, Marks marks, EarlyListening early, Listening listening, Differences differences, Briefs briefs, Bench bench, Laws laws) {
        this.handIns = handIns;
        this.notes = notes;
        this.marks = marks;
        this.early = early;
        this.listening = listening;
        this.differences = differences;
        this.briefs = briefs;
        this.bench = bench;
        this.laws = laws;
    }

    /** What became of an earlier note: where its words are now, and what was done there. */
    public record Outcome(MarginNotes.Placed placed, List<Change> changes) {
    }

    /** @param all the hand-ins of its episode */
    void add(Person viewer, HandIn handIn, long classId, List<HandIn> all, Model model) {
        rows(viewer, handIn, model);
        said(viewer, handIn, model);
        since(viewer, handIn, all, model);
        model.addAttribute("report", handIns.report(handIn));
        model.addAttribute("brief", briefs.ofEpisode(handIn.episodeId()));
        model.addAttribute("next", viewer.isTeacher() ? handIns.waiting(viewer, classId).stream().filter(other -> other.id() != handIn.id()).findFirst().orElse(null) : null);
    }

    private void rows(Person viewer, HandIn handIn, Model model) {
        model.addAttribute("frames", handIn.frames());
        model.addAttribute("trackNames", bench.timeline(handIn.timelineHash()).trackNames());
        model.addAttribute("listened", listening.map(viewer, handIn));
        model.addAttribute("workingLevel", WorkingLevel.STANDARD);
        model.addAttribute("viewerId", viewer.id());
        model.addAttribute("laws", laws.json());
    }

    private void said(Person viewer, HandIn handIn, Model model) {
        model.addAttribute("notes", notes.in(viewer, handIn, handIn));
        model.addAttribute("phrases", viewer.isTeacher() ? notes.phrases(viewer) : Map.of());
        model.addAttribute("kinds", MarginNote.Kind.values());
        model.addAttribute("others", viewer.isTeacher() ? early.others(handIn) : List.of());
        model.addAttribute("asked", marks.asked(viewer, handIn));
        model.addAttribute("sheet", marks.sheet(viewer, handIn));
    }

    private void since(Person viewer, HandIn handIn, List<HandIn> all, Model model) {
        Optional<HandIn> earlier = all.stream().filter(other -> other.number() == handIn.number() - 1).findFirst();
        Differences.Difference since = earlier.filter(HandIn::ready).map(before -> differences.between(before, handIn)).orElse(Differences.Difference.NONE);
        model.addAttribute("earlier", earlier.orElse(null));
        model.addAttribute("changes", since.changes());
        model.addAttribute("anew", since.anew());
        model.addAttribute("earlierNotes", earlier.map(before -> notes.in(viewer, handIn, before)).orElse(List.of()).stream().map(placed -> new Outcome(placed,
                Changes.at(since.changes(), List.of(placed.note().span()), placed.places()))).toList());
    }
}

package org.mellowclass.app.review;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.BenchViews.TimelineView;
import org.mellowclass.app.bench.BenchViews;
import org.mellowclass.app.bench.Laws;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.core.review.Change;
import org.mellowclass.core.review.Changes;
import org.mellowclass.core.review.ListeningMap;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;

@Controller
class ReviewController {

    private static final MediaType FLAC = MediaType.valueOf("audio/flac");

    private final Access access;
    private final HandIns handIns;
    private final MarginNotes notes;
    private final Bench bench;
    private final BenchViews views;
    private final Laws laws;
    private final Briefs briefs;
    private final Listening listening;
    private final Differences differences;
    private final Marks marks;
    private final EarlyListening early;
    private final Clock clock;

    ReviewController(Access access, HandIns handIns, MarginNotes notes, Bench bench, BenchViews views, Laws laws, Briefs briefs, Listening listening, Differences differences, Marks marks, EarlyListening early, Clock clock) {
        this.access = access;
        this.handIns = handIns;
        this.notes = notes;
        this.bench = bench;
        this.views = views;
        this.laws = laws;
        this.briefs = briefs;
        this.listening = listening;
        this.differences = differences;
        this.marks = marks;
        this.early = early;
        this.clock = clock;
    }

    @PostMapping("/episodes/{episodeId}/hand-ins")
    String handIn(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        return "redirect:/hand-ins/" + handIns.handIn(viewer, episodeId).id();
    }

    @GetMapping("/episodes/{episodeId}/hand-ins")
    String list(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        List<HandIn> all = handIns.ofEpisode(viewer, episodeId);
        if (!all.isEmpty()) {
            return "redirect:/hand-ins/" + all.get(0).id();
        }
        addEpisode(viewer, episodeId, model);
        return "review/none";
    }

    /** The hand-ins of a class that wait, to be heard one after the other. */
    @GetMapping("/classes/{classId}/marking")
    String desk(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        model.addAttribute("waiting", handIns.waiting(viewer, classId));
        model.addAttribute("now", clock.instant());
        return "review/desk";
    }

    @GetMapping("/hand-ins/{handInId}")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, Model model) {
        addHandIn(viewer, handInId, model);
        return "review/page";
    }

    /** How far a hand-in has come; the page is loaded again once it can be heard. */
    @GetMapping("/hand-ins/{handInId}/progress")
    String progress(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, Model model, HttpServletResponse response) {
        addHandIn(viewer, handInId, model);
        if (handIns.find(viewer, handInId).ready()) {
            response.setHeader("HX-Refresh", "true");
        }
        return "review/on-its-way :: state";
    }

    /** What was handed in, as the page draws it. */
    @GetMapping("/hand-ins/{handInId}/timeline")
    @ResponseBody
    TimelineView timeline(@AuthenticationPrincipal Person viewer, @PathVariable long handInId) {
        HandIn handIn = handIns.find(viewer, handInId);
        return views.frozen(handIn.episodeId(), handIn.revisionSeq(), bench.timeline(handIn.timelineHash()));
    }

    @PostMapping("/hand-ins/{handInId}/decision")
    String decide(@AuthenticationPrincipal Person viewer, @PathVariable long handInId,
                  @RequestParam HandIn.Decision decision, @RequestParam(defaultValue = "") String sentence, @RequestParam(defaultValue = "") String unheard) {
        HandIn decided = handIns.decide(viewer, handInId, decision, sentence);
        if (decided.cleared() && !unheard.isBlank()) {
            listening.letUnheardThrough(viewer, handInId, unheard);
        }
        return decided.cleared() ? "redirect:/episodes/" + decided.episodeId() + "/air" : "redirect:/hand-ins/" + handInId;
    }

    @GetMapping("/hand-ins/{handInId}/sound")
    ResponseEntity<Resource> sound(@AuthenticationPrincipal Person viewer, @PathVariable long handInId) throws IOException {
        return ResponseEntity.ok().contentType(FLAC).cacheControl(CacheControl.noStore())
                .body(handIns.sound(viewer, handInId));
    }

    private void addHandIn(Person viewer, long handInId, Model model) {
        HandIn handIn = handIns.find(viewer, handInId);
        Episode episode = addEpisode(viewer, handIn.episodeId(), model);
        List<HandIn> all = handIns.ofEpisode(viewer, episode.id());
        model.addAttribute("handIn", handIn);
        model.addAttribute("all", all);
        model.addAttribute("newest", all.get(0).id() == handIn.id());
        model.addAttribute("percent", handIns.percent(handIn).orElse(0));
        if (handIn.ready()) {
            model.addAttribute("notes", notes.in(viewer, handIn, handIn));
            model.addAttribute("phrases", viewer.isTeacher() ? notes.phrases(viewer) : Map.of());
            model.addAttribute("kinds", MarginNote.Kind.values());
            model.addAttribute("report", handIns.report(handIn));
            model.addAttribute("frames", handIn.frames());
            model.addAttribute("trackNames", bench.timeline(handIn.timelineHash()).trackNames());
            model.addAttribute("brief", briefs.ofEpisode(handIn.episodeId()));
            model.addAttribute("others", viewer.isTeacher() ? early.others(handIn) : List.of());
            model.addAttribute("asked", marks.asked(viewer, handIn));
            model.addAttribute("sheet", marks.sheet(viewer, handIn));
            Optional<HandIn> earlier = all.stream().filter(other -> other.number() == handIn.number() - 1).findFirst();
            model.addAttribute("earlier", earlier.orElse(null));
            Differences.Difference since = earlier.filter(HandIn::ready).map(before -> differences.between(before, handIn)).orElse(Differences.Difference.NONE);
            model.addAttribute("changes", since.changes());
            model.addAttribute("anew", since.anew());
            model.addAttribute("earlierNotes", earlier.map(before -> notes.in(viewer, handIn, before)).orElse(List.of()).stream().map(placed -> new Outcome(placed,
                    Changes.at(since.changes(), List.of(placed.note().span()), placed.places()))).toList());
            model.addAttribute("next", viewer.isTeacher() ? handIns.waiting(viewer, episode.classId()).stream().filter(other -> other.id() != handInId).findFirst().orElse(null) : null);
            model.addAttribute("listened", listening.map(viewer, handIn));
            model.addAttribute("workingLevel", WorkingLevel.STANDARD);
            model.addAttribute("viewerId", viewer.id());
            model.addAttribute("laws", laws.json());
        }
    }

    /** What became of an earlier note: where its words are now, and what was done there. */
    public record Outcome(MarginNotes.Placed placed, List<Change> changes) {
    }

    /** The notes alone, when one has been written. */
    @GetMapping("/hand-ins/{handInId}/notes")
    String notes(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, Model model) {
        HandIn handIn = handIns.find(viewer, handInId);
        model.addAttribute("handIn", handIn);
        model.addAttribute("own", !viewer.isTeacher());
        model.addAttribute("notes", notes.in(viewer, handIn, handIn));
        return "review/notes :: list";
    }

    /** A stretch that a page has played, and how long that took. */
    record HeardSpan(String clientId, long startFrame, long endFrame, long elapsedMs) {
    }

    @PostMapping("/hand-ins/{handInId}/heard")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void heard(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, @RequestBody HeardSpan span) {
        listening.heard(viewer, handInId, span.clientId(), span.startFrame(), span.endFrame(), span.elapsedMs());
    }

    @GetMapping("/hand-ins/{handInId}/listening")
    @ResponseBody
    ListeningMap listened(@AuthenticationPrincipal Person viewer, @PathVariable long handInId) {
        return listening.map(viewer, handIns.find(viewer, handInId));
    }

    @PostMapping("/hand-ins/{handInId}/unheard")
    String letUnheardThrough(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, @RequestParam String reason) {
        listening.letUnheardThrough(viewer, handInId, reason);
        return "redirect:/episodes/" + handIns.find(viewer, handInId).episodeId() + "/air";
    }

    private Episode addEpisode(Person viewer, long episodeId, Model model) {
        Episode episode = access.episode(viewer, episodeId);
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        return episode;
    }
}

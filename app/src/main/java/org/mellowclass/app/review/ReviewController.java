package org.mellowclass.app.review;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import java.util.List;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.BenchViews.TimelineView;
import org.mellowclass.app.bench.BenchViews;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

@Controller
class ReviewController {

    private static final MediaType FLAC = MediaType.valueOf("audio/flac");

    private final Access access;
    private final HandIns handIns;
    private final HandInPage handInPage;
    private final Listening listening;
    private final Bench bench;
    private final BenchViews views;
    private final Clock clock;

    ReviewController(Access access, HandIns handIns, HandInPage handInPage, Listening listening, Bench bench, BenchViews views, Clock clock) {
        this.access = access;
        this.handIns = handIns;
        this.handInPage = handInPage;
        this.listening = listening;
        this.bench = bench;
        this.views = views;
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
            handInPage.add(viewer, handIn, episode.classId(), all, model);
        }
    }

    private Episode addEpisode(Person viewer, long episodeId, Model model) {
        Episode episode = access.episode(viewer, episodeId);
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        return episode;
    }
}

package org.mellowclass.app.review;

import org.mellowclass.app.people.Person;
import org.mellowclass.core.review.ListeningMap;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;

/** What somebody has heard of a hand-in, and what goes on air unheard. */
@Controller
class ListeningController {

    private final Listening listening;
    private final HandIns handIns;

    ListeningController(Listening listening, HandIns handIns) {
        this.listening = listening;
        this.handIns = handIns;
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
}

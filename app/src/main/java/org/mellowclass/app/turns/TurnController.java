package org.mellowclass.app.turns;

import org.mellowclass.app.people.Person;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class TurnController {

    private final RecordingTurns turns;

    TurnController(RecordingTurns turns) {
        this.turns = turns;
    }

    /** Starts a round, or gives the turn to the next crew, or to the one that is named. */
    @PostMapping("/classes/{classId}/turns")
    String next(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(required = false) Long crewId) {
        if (crewId == null) {
            turns.next(viewer, classId);
        } else {
            turns.give(viewer, classId, crewId);
        }
        return "redirect:/classes/" + classId;
    }

    @PostMapping("/classes/{classId}/turns/end")
    String end(@AuthenticationPrincipal Person viewer, @PathVariable long classId) {
        turns.end(viewer, classId);
        return "redirect:/classes/" + classId;
    }

    @PostMapping("/episodes/{episodeId}/turn/done")
    String done(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        turns.done(viewer, episodeId);
        return "redirect:/episodes/" + episodeId + "/record";
    }
}

package org.mellowclass.app.practice;

import java.io.IOException;

import org.mellowclass.app.people.Person;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PostMapping;

@Controller
class PracticeController {

    private final Practice practice;

    PracticeController(Practice practice) {
        this.practice = practice;
    }

    @PostMapping("/practice")
    String open(@AuthenticationPrincipal Person viewer) throws IOException {
        return "redirect:/episodes/" + practice.episodeOf(viewer) + "/bench";
    }

    @PostMapping("/practice/again")
    String again(@AuthenticationPrincipal Person viewer) throws IOException {
        practice.startAgain(viewer);
        return "redirect:/episodes/" + practice.episodeOf(viewer) + "/bench";
    }
}

package org.mellowclass.app.erasing;

import java.io.IOException;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.ProvenLately;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;

@Controller
class EraseController {

    private final Erasing erasing;
    private final Erasures erasures;
    private final Access access;

    EraseController(Erasing erasing, Erasures erasures, Access access) {
        this.erasing = erasing;
        this.erasures = erasures;
        this.access = access;
    }

    /** A student asks for a take to be erased. */
    @PostMapping("/takes/{takeId}/erase-request")
    String ask(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) {
        return "redirect:/episodes/" + erasing.ask(viewer, takeId) + "/record";
    }

    /** Asks once: whose voice it is, and where it is heard. */
    @ProvenLately
    @GetMapping("/takes/{takeId}/erase")
    String sure(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, Model model) {
        Erasures.Heard heard = erasures.heard(viewer, takeId);
        model.addAttribute("heard", heard);
        model.addAttribute("schoolClass", access.taughtClass(viewer, access.taughtEpisode(viewer, heard.take().episodeId()).classId()));
        return "erasing/take";
    }

    @ProvenLately
    @PostMapping("/takes/{takeId}/erase")
    String erase(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) throws IOException {
        return "redirect:/classes/" + erasures.erase(viewer, takeId);
    }

    @PostMapping("/takes/{takeId}/keep")
    String keep(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) {
        long classId = access.taughtEpisode(viewer, erasing.asked(viewer, takeId).episodeId()).classId();
        erasing.keep(viewer, takeId);
        return "redirect:/classes/" + classId;
    }
}

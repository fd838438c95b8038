package org.mellowclass.app.feed;

import org.mellowclass.app.people.Person;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What is on air with a voice, and what went off air because of one. */
@Controller
class VoicesOnAirController {

    private final VoicesOnAir onAir;

    VoicesOnAirController(VoicesOnAir onAir) {
        this.onAir = onAir;
    }

    /** For a student's page: what goes off air when their consent is taken back. */
    @GetMapping("/classes/{classId}/students/{studentId}/on-air")
    String with(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId, Model model) {
        model.addAttribute("publications", onAir.with(viewer, classId, studentId));
        return "feed/voices-on-air :: with";
    }

    /** For the pages of a class: what went off air, until it has been read. */
    @GetMapping("/classes/{classId}/taken-back")
    String takenBack(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        model.addAttribute("takenBack", onAir.unread(viewer, classId));
        model.addAttribute("classId", classId);
        return "feed/voices-on-air :: taken-back";
    }

    /** For the school's page: all that went off air in its classes and has not been read there. */
    @GetMapping("/school/taken-back")
    String takenBackInSchool(@AuthenticationPrincipal Person viewer, Model model) {
        model.addAttribute("takenBack", onAir.unreadOfSchool(viewer));
        model.addAttribute("classId", 0);
        return "feed/voices-on-air :: taken-back";
    }

    @PostMapping("/classes/{classId}/taken-back/{id}")
    String read(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long id, @RequestParam(defaultValue = "false") boolean atDesk,
                @RequestParam(defaultValue = "0") long episodeId) {
        onAir.read(viewer, classId, id);
        return atDesk ? "redirect:/episodes/" + episodeId + "/air" : "redirect:/classes/" + classId;
    }
}

package org.mellowclass.app.review;

import java.io.IOException;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.SkylinePicture;
import org.mellowclass.app.web.Words;
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

/** Listening early: what a teacher opens, and what an invited crew hears and says. */
@Controller
class EarlyController {

    private static final int PICTURE_COLUMNS = 240;

    private final EarlyListening early;
    private final Words times;

    EarlyController(EarlyListening early, Words times) {
        this.early = early;
        this.times = times;
    }

    @PostMapping("/hand-ins/{handInId}/early-listeners")
    String invite(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, @RequestParam long crew, @RequestParam(defaultValue = "0") int days) {
        if (days == 0) {
            early.uninvite(viewer, handInId, crew);
        } else {
            early.invite(viewer, handInId, crew, days);
        }
        return "redirect:/hand-ins/" + handInId;
    }

    /** All that somebody is invited to. */
    @GetMapping("/early")
    String list(@AuthenticationPrincipal Person viewer, Model model) {
        model.addAttribute("toHear", early.toHear(viewer));
        return "review/early-list";
    }

    @GetMapping("/early/{handInId}")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, Model model) {
        model.addAttribute("it", early.guest(viewer, handInId));
        model.addAttribute("own", early.own(viewer, handInId));
        model.addAttribute("picture", SkylinePicture.of(early.skyline(viewer, handInId), PICTURE_COLUMNS));
        return "review/early";
    }

    @GetMapping("/early/{handInId}/sound")
    ResponseEntity<Resource> sound(@AuthenticationPrincipal Person viewer, @PathVariable long handInId) throws IOException {
        return ResponseEntity.ok().contentType(MediaType.valueOf("audio/flac")).cacheControl(CacheControl.noStore()).body(early.sound(viewer, handInId));
    }

    @PostMapping("/early/{handInId}/notes")
    String write(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, @RequestParam MarginNote.Kind kind, @RequestParam String words,
                 @RequestParam String from, @RequestParam String to) {
        early.write(viewer, handInId, kind, words, times.frames(from).orElseThrow(() -> Refusal.unfit("note.SPAN").at("from")),
                times.frames(to).orElseThrow(() -> Refusal.unfit("note.SPAN").at("to")));
        return "redirect:/early/" + handInId;
    }
}

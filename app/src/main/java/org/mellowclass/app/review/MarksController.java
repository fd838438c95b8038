package org.mellowclass.app.review;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class MarksController {

    private final Marks marks;
    private final EarlyListening early;
    private final Access access;

    MarksController(Marks marks, EarlyListening early, Access access) {
        this.marks = marks;
        this.early = early;
        this.access = access;
    }

    @PostMapping("/hand-ins/{handInId}/marks")
    String save(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, @RequestParam Map<String, String> typed) {
        marks.save(viewer, handInId, typed, "true".equals(typed.get("send")));
        return "redirect:/hand-ins/" + handInId;
    }

    /** The class's marks at a glance. */
    @GetMapping("/classes/{classId}/marks")
    String ofClass(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        List<Marks.OfClass> all = marks.ofClass(viewer, classId);
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        model.addAttribute("sheets", MarksTable.of(all));
        model.addAttribute("written", early.written(viewer, classId));
        model.addAttribute("criteria", all.stream().map(Marks.OfClass::criterion).distinct().toList());
        return "review/marks";
    }

    @GetMapping("/classes/{classId}/marks.csv")
    ResponseEntity<byte[]> csv(@AuthenticationPrincipal Person viewer, @PathVariable long classId) {
        return ResponseEntity.ok().contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename("marks.csv").build().toString())
                .body(marks.csv(viewer, classId).getBytes(StandardCharsets.UTF_8));
    }
}

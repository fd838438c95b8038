package org.mellowclass.app.roster;

import java.util.List;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The consents of a whole class on one page, and the form that families sign. */
@Controller
class ConsentController {

    private final Access access;
    private final Roster roster;

    ConsentController(Access access, Roster roster) {
        this.access = access;
        this.roster = roster;
    }

    private List<Student> fill(Person viewer, long classId, Model model) {
        List<Student> students = roster.students(viewer, classId);
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        model.addAttribute("students", students);
        return students;
    }

    @GetMapping("/classes/{classId}/consents")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        List<Student> students = fill(viewer, classId, model);
        model.addAttribute("unasked", students.stream().filter(student -> student.consent() == null).count());
        model.addAttribute("consents", Consent.values());
        return "roster/consents";
    }

    @PostMapping("/classes/{classId}/consents")
    String agree(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(required = false) List<Long> studentId,
                 @RequestParam Consent consent, @RequestParam(defaultValue = "") String saidBy) {
        roster.agree(viewer, classId, studentId == null ? List.of() : studentId, consent, saidBy);
        return "redirect:/classes/" + classId + "/consents";
    }

    /** One sheet a student, to print. */
    @GetMapping("/classes/{classId}/consents/form")
    String form(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        fill(viewer, classId, model);
        model.addAttribute("consents", Consent.values());
        return "roster/consent-form";
    }
}

package org.mellowclass.app.keeping;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.ProvenLately;
import org.mellowclass.app.people.SchoolOffice;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class KeepingController {

    private final Keeping keeping;
    private final Access access;
    private final SchoolOffice office;

    KeepingController(Keeping keeping, Access access, SchoolOffice office) {
        this.keeping = keeping;
        this.access = access;
        this.office = office;
    }

    @GetMapping("/classes/{classId}/keeping")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        model.addAttribute("kept", keeping.of(viewer, classId));
        return "keeping/keeping";
    }

    @PostMapping("/classes/{classId}/keeping")
    String keep(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(defaultValue = "") String until) {
        keeping.keepUntil(viewer, classId, day(until));
        return "redirect:/classes/" + classId + "/keeping";
    }

    private static LocalDate day(String text) {
        try {
            return LocalDate.parse(text);
        } catch (DateTimeParseException none) {
            return null;
        }
    }

    @ProvenLately
    @PostMapping("/classes/{classId}/let-go")
    String letGo(@AuthenticationPrincipal Person viewer, @PathVariable long classId) {
        keeping.letGo(viewer, classId);
        return "redirect:/";
    }

    @PostMapping("/classes/{classId}/take-back")
    String takeBack(@AuthenticationPrincipal Person viewer, @PathVariable long classId) {
        keeping.takeBack(viewer, classId);
        return "redirect:/classes/" + classId;
    }

    /** What goes of a teacher's classes, and of the school: asked for by the home page and class boards. */
    @GetMapping("/going")
    String going(@AuthenticationPrincipal Person viewer, Model model) {
        model.addAttribute("going", keeping.going(viewer));
        model.addAttribute("zone", office.zone(viewer.schoolId()));
        model.addAttribute("schoolDeletedAt", keeping.schoolDeletedAt(viewer).orElse(null));
        return "keeping/going :: going";
    }

    @ProvenLately
    @GetMapping("/school/let-go")
    String askToLetSchoolGo(@AuthenticationPrincipal Person viewer) {
        access.requireLead(viewer);
        return "keeping/school-goes";
    }

    @ProvenLately
    @PostMapping("/school/let-go")
    String letSchoolGo(@AuthenticationPrincipal Person viewer) {
        keeping.letSchoolGo(viewer);
        return "redirect:/";
    }

    @PostMapping("/school/take-back")
    String takeSchoolBack(@AuthenticationPrincipal Person viewer) {
        keeping.takeSchoolBack(viewer);
        return "redirect:/";
    }
}

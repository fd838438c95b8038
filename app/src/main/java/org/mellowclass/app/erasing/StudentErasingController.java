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
class StudentErasingController {

    private final StudentErasing erasing;
    private final Access access;

    StudentErasingController(StudentErasing erasing, Access access) {
        this.erasing = erasing;
        this.access = access;
    }

    /** What goes with a student. */
    @ProvenLately
    @GetMapping("/classes/{classId}/students/{studentId}/delete")
    String ask(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId, Model model) {
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        model.addAttribute("going", erasing.going(viewer, classId, studentId));
        return "erasing/student";
    }

    @ProvenLately
    @PostMapping("/classes/{classId}/students/{studentId}/delete")
    String delete(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId) throws IOException {
        erasing.erase(viewer, classId, studentId);
        return "redirect:/classes/" + classId + "/crews";
    }
}

package org.mellowclass.app.everything;

import java.io.IOException;

import jakarta.servlet.http.HttpServletResponse;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.ProvenLately;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

@Controller
class EverythingController {

    private final EverythingKept everything;

    EverythingController(EverythingKept everything) {
        this.everything = everything;
    }

    /** For the student themselves. */
    @GetMapping("/everything")
    void own(@AuthenticationPrincipal Person viewer, HttpServletResponse response) throws IOException {
        write(viewer, everything.own(viewer), response);
    }

    /** For a teacher, to hand on to the family. */
    @ProvenLately
    @GetMapping("/classes/{classId}/students/{studentId}/everything")
    void ofStudent(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId, HttpServletResponse response) throws IOException {
        write(viewer, everything.student(viewer, classId, studentId), response);
    }

    /** As it is made: the whole is never kept anywhere. */
    private void write(Person viewer, Person student, HttpServletResponse response) throws IOException {
        response.setContentType("application/zip");
        response.setHeader(HttpHeaders.CACHE_CONTROL, CacheControl.noStore().getHeaderValue());
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename("everything.zip").build().toString());
        everything.write(viewer, student, response.getOutputStream());
    }
}

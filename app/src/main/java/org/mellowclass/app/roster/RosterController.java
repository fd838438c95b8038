package org.mellowclass.app.roster;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Invitations;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.ProvenLately;
import org.mellowclass.app.people.SchoolClass;
import org.springframework.http.CacheControl;
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
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.UriComponentsBuilder;

/** Who is in a class: its students, crews, teachers and sign-in cards. */
@Controller
class RosterController {

    private final Access access;
    private final Classes classes;
    private final Roster roster;
    private final Crews crews;
    private final Briefs briefs;
    private final SignInCards cards;
    private final Invitations invitations;
    private final Outbox outbox;
    private final MellowProperties properties;

    RosterController(Access access, Classes classes, Roster roster, Crews crews, Briefs briefs, SignInCards cards,
                     Invitations invitations, Outbox outbox, MellowProperties properties) {
        this.access = access;
        this.classes = classes;
        this.roster = roster;
        this.crews = crews;
        this.briefs = briefs;
        this.cards = cards;
        this.invitations = invitations;
        this.outbox = outbox;
        this.properties = properties;
    }

    @PostMapping("/classes")
    String addClass(@AuthenticationPrincipal Person viewer, @RequestParam(defaultValue = "") String name) {
        return "redirect:/classes/" + classes.add(viewer, name) + "/crews";
    }

    @GetMapping("/classes/{classId}/crews")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        fill(viewer, classId, model);
        return "roster/crews";
    }

    private void fill(Person viewer, long classId, Model model) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        List<Student> students = roster.students(viewer, classId);
        List<Crew> all = crews.ofClass(viewer, classId);
        Map<Long, Map<Long, Long>> owners = new HashMap<>();
        all.forEach(crew -> owners.put(crew.id(), briefs.owners(classId, crew.episodeId())));
        model.addAttribute("schoolClass", schoolClass);
        model.addAttribute("students", students);
        model.addAttribute("waiting", students.stream().filter(student -> student.crewId() == null).count());
        model.addAttribute("crews", all);
        model.addAttribute("parts", briefs.whole(classId).parts());
        model.addAttribute("owners", owners);
        model.addAttribute("joins", roster.joinRequests(viewer, classId));
        model.addAttribute("teachers", classes.teachers(viewer, classId));
        model.addAttribute("viewerId", viewer.id());
        model.addAttribute("consents", Consent.values());
        model.addAttribute("toPrint", students.stream().filter(student -> student.freshPassphrase() != null).count());
    }

    /** After a change: the part of the page that it changed for scripts, the page for others. */
    private String after(Person viewer, long classId, String byScript, Model model) {
        if (byScript == null) {
            return "redirect:/classes/" + classId + "/crews";
        }
        fill(viewer, classId, model);
        return "roster/crew-table :: table";
    }

    @PostMapping("/classes/{classId}/crews")
    String addCrew(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(defaultValue = "") String name,
                   @RequestHeader(name = "HX-Request", required = false) String byScript, Model model) {
        crews.add(viewer, classId, name, name.isBlank() ? name : name.strip() + "’s episode");
        return after(viewer, classId, byScript, model);
    }

    @PostMapping("/classes/{classId}/crews/deal")
    String deal(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(defaultValue = "0") int size,
                @RequestHeader(name = "HX-Request", required = false) String byScript, Model model) {
        crews.deal(viewer, classId, size);
        return after(viewer, classId, byScript, model);
    }

    @PostMapping("/classes/{classId}/crews/{crewId}/name")
    String nameCrew(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long crewId,
                    @RequestParam(defaultValue = "") String name, @RequestParam(defaultValue = "") String title,
                    @RequestHeader(name = "HX-Request", required = false) String byScript, Model model) {
        crews.name(viewer, classId, crewId, name, title);
        return after(viewer, classId, byScript, model);
    }

    @PostMapping("/classes/{classId}/crews/{crewId}/remove")
    String removeCrew(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long crewId,
                      @RequestHeader(name = "HX-Request", required = false) String byScript, Model model) {
        crews.remove(viewer, classId, crewId);
        return after(viewer, classId, byScript, model);
    }

    @PostMapping("/classes/{classId}/students")
    String addStudent(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(defaultValue = "") String name,
                      @RequestHeader(name = "HX-Request", required = false) String byScript, Model model) {
        roster.add(viewer, classId, name);
        return after(viewer, classId, byScript, model);
    }

    @PostMapping("/classes/{classId}/students/{studentId}/move")
    String move(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId,
                @RequestParam(defaultValue = "0") long crewId,
                @RequestHeader(name = "HX-Request", required = false) String byScript, Model model) {
        crews.move(viewer, classId, studentId, crewId);
        return after(viewer, classId, byScript, model);
    }

    @GetMapping("/classes/{classId}/students/{studentId}")
    String student(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId, Model model) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        model.addAttribute("history", roster.consents(viewer, classId, studentId));
        model.addAttribute("student", roster.students(viewer, classId).stream().filter(it -> it.id() == studentId).findFirst().orElseThrow());
        model.addAttribute("schoolClass", schoolClass);
        model.addAttribute("teachers", classes.teachers(viewer, classId));
        model.addAttribute("viewerId", viewer.id());
        model.addAttribute("consents", Consent.values());
        return "roster/student";
    }

    @PostMapping("/classes/{classId}/students/{studentId}")
    String changeStudent(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId,
                         @RequestParam(defaultValue = "") String name, @RequestParam(defaultValue = "") String number,
                         @RequestParam(defaultValue = "") String onAirName, @RequestParam(required = false) Consent consent) {
        roster.change(viewer, classId, studentId, name, number, onAirName, consent);
        return "redirect:/classes/" + classId + "/crews";
    }

    @PostMapping("/classes/{classId}/students/{studentId}/leave")
    String leave(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId) {
        roster.leave(viewer, classId, studentId);
        return "redirect:/classes/" + classId + "/crews";
    }

    @PostMapping("/classes/{classId}/students/{studentId}/unlock")
    String unlock(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId) {
        roster.unlock(viewer, classId, studentId);
        return "redirect:/classes/" + classId + "/students/" + studentId;
    }

    /** Answers whether another class may have a student of this one too. */
    @PostMapping("/classes/{classId}/students/{studentId}/joins/{otherClassId}")
    String answerJoin(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long studentId, @PathVariable long otherClassId,
                      @RequestParam boolean yes) {
        roster.answerJoin(viewer, classId, otherClassId, studentId, yes);
        return "redirect:/classes/" + classId + "/crews";
    }

    /** New passphrases for the students named, or for everybody; leads to their cards. */
    @ProvenLately
    @PostMapping("/classes/{classId}/passphrases")
    String newPassphrases(@AuthenticationPrincipal Person viewer, @PathVariable long classId,
                          @RequestParam(required = false) List<Long> studentId, @RequestParam(defaultValue = "false") boolean everybody) {
        List<Long> named = studentId == null ? List.of() : studentId;
        roster.newPassphrases(viewer, classId, everybody ? roster.students(viewer, classId).stream().filter(Student::home).map(Student::id).toList() : named);
        return "redirect:/classes/" + classId + "/cards";
    }

    @ProvenLately
    @GetMapping("/classes/{classId}/cards")
    String cards(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        model.addAttribute("students", roster.printable(viewer, classId));
        model.addAttribute("others", roster.students(viewer, classId).stream().filter(it -> it.freshPassphrase() == null).toList());
        model.addAttribute("address", signInAddress());
        return "roster/cards";
    }

    @ProvenLately
    @GetMapping("/classes/{classId}/cards.pdf")
    ResponseEntity<byte[]> cardsPdf(@AuthenticationPrincipal Person viewer, @PathVariable long classId) throws IOException {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        ByteArrayOutputStream pdf = new ByteArrayOutputStream();
        cards.write(schoolClass, signInAddress(), roster.printable(viewer, classId), pdf);
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_PDF).cacheControl(CacheControl.noStore())
                .header(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename("sign-in-cards.pdf").build().toString())
                .body(pdf.toByteArray());
    }

    private String signInAddress() {
        return UriComponentsBuilder.fromUri(properties.address()).path("/sign-in").toUriString();
    }

    @PostMapping("/classes/{classId}/teachers/{teacherId}/take-off")
    String takeOff(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @PathVariable long teacherId) {
        classes.takeOff(viewer, classId, teacherId);
        return "redirect:/classes/" + classId + "/crews";
    }

    /** Invites a colleague to teach this class too; the link goes out by mail. */
    @PostMapping("/classes/{classId}/invitations")
    String invite(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(defaultValue = "") String email) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        String key = invitations.invite(viewer, classId, email);
        String link = UriComponentsBuilder.fromUri(properties.address()).path("/invitations/{key}").buildAndExpand(key).toUriString();
        outbox.send(viewer, email.strip(), "Teach " + schoolClass.name() + " with me",
                viewer.name() + " invites you to teach " + schoolClass.name() + " at " + schoolClass.schoolName()
                        + ". Open this link within seven days and choose a password:\n" + link);
        return "redirect:/outbox";
    }
}

package org.mellowclass.app.account;

import java.util.List;
import java.util.Map;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Entrance;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.SecondStep;
import org.mellowclass.app.people.SignIn;
import org.mellowclass.app.people.SignedIn;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.web.OwnPath;
import org.mellowclass.app.web.Refusal;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A teacher's own account: the password, and where it is signed in. */
@Controller
class AccountController {

    private final Access access;
    private final SchoolOffice office;
    private final SignIn signIn;
    private final SignedIn signedIn;
    private final SecondStep secondStep;
    private final NewPasswords passwords;
    private final PasswordResets resets;
    private final SecurityLog log;
    private final Entrance entrance;

    AccountController(Access access, SchoolOffice office, SignIn signIn, SignedIn signedIn, SecondStep secondStep, NewPasswords passwords, PasswordResets resets, SecurityLog log, Entrance entrance) {
        this.access = access;
        this.office = office;
        this.signIn = signIn;
        this.signedIn = signedIn;
        this.secondStep = secondStep;
        this.passwords = passwords;
        this.resets = resets;
        this.log = log;
        this.entrance = entrance;
    }

    @GetMapping("/account")
    String page(@AuthenticationPrincipal Person viewer, HttpSession session, @RequestParam(defaultValue = "") String done, Model model) {
        access.requireTeacher(viewer);
        model.addAttribute("places", signedIn.places(viewer, session.getId()));
        model.addAttribute("zone", office.zone(viewer.schoolId()));
        model.addAttribute("stepSet", secondStep.isSet(viewer));
        model.addAttribute("leads", office.leads(viewer));
        model.addAttribute("changed", "password".equals(done));
        return "account/account";
    }

    /** Whoever changes it stays signed in here, and nowhere else. */
    @PostMapping("/account/password")
    String change(@AuthenticationPrincipal Person viewer, HttpSession session, @RequestParam(defaultValue = "") String current,
                  @RequestParam(defaultValue = "") String password) {
        access.requireTeacher(viewer);
        if (!signIn.proves(viewer, current)) {
            throw Refusal.unfit("account.CURRENT").at("current");
        }
        passwords.set(viewer, password);
        signedIn.endOthers(viewer, session.getId(), null);
        return "redirect:/account?done=password";
    }

    @PostMapping("/account/elsewhere/end")
    String endElsewhere(@AuthenticationPrincipal Person viewer, HttpSession session, @RequestParam(required = false) String handle) {
        access.requireTeacher(viewer);
        signedIn.endOthers(viewer, session.getId(), handle);
        log.note(viewer.schoolId(), SecurityLog.Kind.ENDED_ELSEWHERE, viewer.id(), null, null);
        return "redirect:/account";
    }

    /** The password again, for a page that only somebody may see who has entered it lately. */
    @PostMapping("/again")
    String again(@AuthenticationPrincipal Person viewer, @RequestParam(defaultValue = "") String passwordAgain, @RequestParam(defaultValue = "/") String next,
                 HttpServletRequest request, HttpServletResponse response, Model model) {
        if (!signIn.proves(viewer, passwordAgain)) {
            return asked(next, true, model);
        }
        entrance.proven(viewer, request, response);
        return "redirect:" + OwnPath.of(next);
    }

    @GetMapping("/again")
    String askAgain(@RequestParam(defaultValue = "/") String next, Model model) {
        return asked(next, false, model);
    }

    private static String asked(String next, boolean wrong, Model model) {
        model.addAttribute("action", "/again");
        model.addAttribute("fields", Map.of("next", List.of(OwnPath.of(next))));
        model.addAttribute("wrong", wrong);
        return "people/again";
    }

    @GetMapping("/sign-in/forgotten")
    String forgotten(@RequestParam(defaultValue = "false") boolean sent, Model model) {
        model.addAttribute("sent", sent);
        return "account/forgotten";
    }

    @PostMapping("/sign-in/forgotten")
    String ask(@RequestParam(defaultValue = "") String email) {
        if (email.length() <= SchoolOffice.LONGEST_ADDRESS) {
            resets.ask(email);
        }
        return "redirect:/sign-in/forgotten?sent=true";
    }

    @GetMapping("/sign-in/new-password/{resetKey}")
    String newPassword(@PathVariable String resetKey, Model model) {
        model.addAttribute("teacher", resets.find(resetKey));
        model.addAttribute("key", resetKey);
        return "account/new-password";
    }

    @PostMapping("/sign-in/new-password/{resetKey}")
    String set(@PathVariable String resetKey, @RequestParam(defaultValue = "") String password) {
        resets.set(resetKey, password);
        return "redirect:/sign-in?as=teacher";
    }
}

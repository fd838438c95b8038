package org.mellowclass.app.people;

import java.time.ZoneId;
import java.util.TreeSet;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** How teachers come in who have no account yet: the first one of a school, and those who were invited. */
@Controller
class ArrivalController {

    private final FirstStart firstStart;
    private final Invitations invitations;
    private final FirstClass firstClass;
    private final Entrance entrance;

    ArrivalController(FirstStart firstStart, Invitations invitations, FirstClass firstClass, Entrance entrance) {
        this.firstStart = firstStart;
        this.invitations = invitations;
        this.firstClass = firstClass;
        this.entrance = entrance;
    }

    @GetMapping("/first-start")
    String firstStart(@RequestParam(defaultValue = "") String key, Model model) {
        firstStart.check(key);
        model.addAttribute("key", key);
        model.addAttribute("zones", new TreeSet<>(ZoneId.getAvailableZoneIds()));
        return "people/first-start";
    }

    @PostMapping("/first-start")
    String make(@RequestParam(defaultValue = "") String key, @RequestParam(defaultValue = "") String school,
                @RequestParam(defaultValue = "") String zone, @RequestParam(defaultValue = "") String name,
                @RequestParam(defaultValue = "") String email, @RequestParam(defaultValue = "") String password,
                @RequestParam(defaultValue = "") String className, HttpServletRequest request, HttpServletResponse response) {
        Person teacher = firstStart.make(key, school, zone, name, email, password);
        entrance.welcome(teacher, request, response);
        return className.isBlank() ? "redirect:/" : "redirect:/classes/" + firstClass.add(teacher, className) + "/crews";
    }

    @GetMapping("/invitations/{invitationKey}")
    String invitation(@PathVariable String invitationKey, Model model) {
        model.addAttribute("invitation", invitations.find(invitationKey));
        model.addAttribute("key", invitationKey);
        return "people/invitation";
    }

    @PostMapping("/invitations/{invitationKey}")
    String accept(@PathVariable String invitationKey, @RequestParam(defaultValue = "") String name,
                  @RequestParam(defaultValue = "") String password, HttpServletRequest request, HttpServletResponse response) {
        entrance.welcome(invitations.accept(invitationKey, name, password), request, response);
        return "redirect:/";
    }
}

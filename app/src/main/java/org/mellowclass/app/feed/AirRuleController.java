package org.mellowclass.app.feed;

import java.util.Set;

import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.core.soundcheck.Reading;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The house sound of a class: what is aimed at, and what must be good before an episode goes on air. */
@Controller
class AirRuleController {

    private final AirRules rules;
    private final Briefs briefs;
    private final Access access;

    AirRuleController(AirRules rules, Briefs briefs, Access access) {
        this.rules = rules;
        this.briefs = briefs;
        this.access = access;
    }

    @GetMapping("/classes/{classId}/house-sound")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        model.addAttribute("schoolClass", access.taughtClass(viewer, classId));
        model.addAttribute("rule", rules.of(classId));
        model.addAttribute("brief", briefs.whole(classId).brief());
        model.addAttribute("kinds", Reading.Kind.values());
        return "feed/house-sound";
    }

    @PostMapping("/classes/{classId}/house-sound")
    String change(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(required = false) Set<Reading.Kind> mustBeGood, @RequestParam(defaultValue = "false") boolean leadOnly) {
        rules.change(viewer, classId, mustBeGood == null ? Set.of() : mustBeGood, leadOnly);
        return "redirect:/classes/" + classId + "/house-sound";
    }
}

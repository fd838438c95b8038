package org.mellowclass.app.outbox;

import org.mellowclass.app.people.Person;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;

@Controller
class OutboxController {

    private final Outbox outbox;

    OutboxController(Outbox outbox) {
        this.outbox = outbox;
    }

    @GetMapping("/outbox")
    String page(@AuthenticationPrincipal Person viewer, Model model) {
        model.addAttribute("mails", outbox.sentBy(viewer));
        return "outbox/outbox";
    }
}

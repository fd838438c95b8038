package org.mellowclass.app.news;

import java.time.Clock;

import org.mellowclass.app.people.Person;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class NewsController {

    private final News news;
    private final Clock clock;

    NewsController(News news, Clock clock) {
        this.news = news;
        this.clock = clock;
    }

    @GetMapping("/news")
    String page(@AuthenticationPrincipal Person viewer, Model model) {
        model.addAttribute("page", news.read(viewer));
        model.addAttribute("teaches", viewer.isTeacher());
        model.addAttribute("mails", News.Mail.values());
        model.addAttribute("now", clock.instant());
        return "news/news";
    }

    @PostMapping("/news/mail")
    String choose(@AuthenticationPrincipal Person viewer, @RequestParam News.Mail mail) {
        news.choose(viewer, mail);
        return "redirect:/news";
    }
}

package org.mellowclass.app.people;

import java.util.List;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class SignInController {

    private final SignIn signIn;
    private final Access access;
    private final Entrance entrance;

    SignInController(SignIn signIn, Access access, Entrance entrance) {
        this.signIn = signIn;
        this.access = access;
        this.entrance = entrance;
    }

    /** Everybody's way home: a teacher's class board, a student's episode. */
    @GetMapping("/")
    String home(@AuthenticationPrincipal Person viewer, Model model) {
        if (viewer.isTeacher()) {
            List<SchoolClass> classes = access.classesOf(viewer);
            if (classes.size() == 1) {
                return "redirect:/classes/" + classes.get(0).id();
            }
            model.addAttribute("classes", classes);
        } else {
            List<Episode> episodes = access.episodesOf(viewer);
            if (episodes.size() == 1) {
                return "redirect:/episodes/" + episodes.get(0).id() + "/bench";
            }
            model.addAttribute("episodes", episodes);
        }
        return "people/home";
    }

    @GetMapping("/sign-in")
    String page(@RequestParam(defaultValue = "student") String as, Model model) {
        model.addAttribute("as", "teacher".equals(as) ? "teacher" : "student");
        return "people/sign-in";
    }

    @PostMapping("/sign-in/teacher")
    String teacher(@RequestParam String email, @RequestParam String password, Model model,
                   HttpServletRequest request, HttpServletResponse response) {
        model.addAttribute("as", "teacher");
        model.addAttribute("email", email);
        return enter(signIn.teacher(email, password), model, request, response);
    }

    @PostMapping("/sign-in/student")
    String student(@RequestParam String code, @RequestParam String name, @RequestParam String passphrase, Model model,
                   HttpServletRequest request, HttpServletResponse response) {
        model.addAttribute("as", "student");
        model.addAttribute("code", code);
        model.addAttribute("name", name);
        return enter(signIn.student(code, name, passphrase), model, request, response);
    }

    private String enter(SignIn.Result result, Model model, HttpServletRequest request, HttpServletResponse response) {
        if (result instanceof SignIn.Result.Welcome welcome) {
            entrance.welcome(welcome.person(), request, response);
            return "redirect:/";
        }
        model.addAttribute("problem",
                result instanceof SignIn.Result.TooManyAttempts ? "sign-in.too-many" : "sign-in.wrong");
        return "people/sign-in";
    }
}

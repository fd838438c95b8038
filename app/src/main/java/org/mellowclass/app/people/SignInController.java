package org.mellowclass.app.people;

import java.io.Serializable;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import org.mellowclass.app.store.RandomKey;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.WebUtils;

@Controller
class SignInController {

    private static final String LAPTOP = "laptop";
    private static final Duration LAPTOP_KEPT = Duration.ofDays(400);
    private static final int LONGEST_SHOWN = 200;
    private static final String AWAITED = "awaited";
    private static final Duration AWAITED_FOR = Duration.ofMinutes(5);

    private final SignIn signIn;
    private final Access access;
    private final SchoolOffice office;
    private final Entrance entrance;
    private final Clock clock;

    SignInController(SignIn signIn, Access access, SchoolOffice office, Entrance entrance, Clock clock) {
        this.signIn = signIn;
        this.access = access;
        this.office = office;
        this.entrance = entrance;
        this.clock = clock;
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
        if (!office.hasSchool()) {
            return "people/no-school";
        }
        model.addAttribute("as", "teacher".equals(as) ? "teacher" : "student");
        return "people/sign-in";
    }

    @PostMapping("/sign-in/teacher")
    String teacher(@RequestParam String email, @RequestParam String password, Model model,
                   HttpServletRequest request, HttpServletResponse response) {
        model.addAttribute("as", "teacher");
        model.addAttribute("email", shown(email));
        return enter(signIn.teacher(email, password, laptop(request, response)), model, request, response);
    }

    @PostMapping("/sign-in/student")
    String student(@RequestParam String code, @RequestParam String name, @RequestParam String passphrase, Model model,
                   HttpServletRequest request, HttpServletResponse response) {
        model.addAttribute("as", "student");
        model.addAttribute("code", shown(code));
        model.addAttribute("name", shown(name));
        return enter(signIn.student(code, name, passphrase, laptop(request, response)), model, request, response);
    }

    /** Somebody whose password was right, and who has a while for the second step. */
    private record Awaited(Person person, Instant until) implements Serializable {
    }

    @GetMapping("/sign-in/code")
    String code(HttpServletRequest request) {
        return awaited(request).isPresent() ? "people/code" : "redirect:/sign-in?as=teacher";
    }

    @PostMapping("/sign-in/code")
    String code(@RequestParam(defaultValue = "") String code, Model model, HttpServletRequest request, HttpServletResponse response) {
        Optional<Person> awaited = awaited(request);
        if (awaited.isEmpty()) {
            return "redirect:/sign-in?as=teacher";
        }
        SignIn.Result result = signIn.secondStep(awaited.get(), code);
        if (result instanceof SignIn.Result.Welcome welcome) {
            request.getSession().removeAttribute(AWAITED);
            entrance.welcome(welcome.person(), request, response);
            return "redirect:/";
        }
        model.addAttribute("problem", problem(result));
        return "people/code";
    }

    private Optional<Person> awaited(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        return session != null && session.getAttribute(AWAITED) instanceof Awaited awaited && awaited.until.isAfter(clock.instant())
                ? Optional.of(awaited.person) : Optional.empty();
    }

    /** The mark of a laptop: nameless, and the only thing that stays on it when somebody signs out. */
    private static String laptop(HttpServletRequest request, HttpServletResponse response) {
        Cookie known = WebUtils.getCookie(request, LAPTOP);
        if (known != null && RandomKey.is(known.getValue())) {
            return known.getValue();
        }
        String fresh = RandomKey.next();
        response.addHeader(HttpHeaders.SET_COOKIE, ResponseCookie.from(LAPTOP, fresh).httpOnly(true).secure(request.isSecure()).sameSite("Lax")
                .path("/sign-in").maxAge(LAPTOP_KEPT).build().toString());
        return fresh;
    }

    private static String shown(String typed) {
        return typed.length() > LONGEST_SHOWN ? "" : typed;
    }

    private String enter(SignIn.Result result, Model model, HttpServletRequest request, HttpServletResponse response) {
        if (result instanceof SignIn.Result.Welcome welcome) {
            entrance.welcome(welcome.person(), request, response);
            return "redirect:/";
        }
        if (result instanceof SignIn.Result.SecondStepToCome step) {
            request.getSession().setAttribute(AWAITED, new Awaited(step.person(), clock.instant().plus(AWAITED_FOR)));
            return "redirect:/sign-in/code";
        }
        model.addAttribute("problem", problem(result));
        return "people/sign-in";
    }

    private static String problem(SignIn.Result result) {
        return result instanceof SignIn.Result.TooManyAttempts ? "sign-in.too-many" : "sign-in.wrong";
    }
}

package org.mellowclass.app.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mellowclass.app.web.OwnPath;
import org.mellowclass.app.web.StayingForms;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.ModelAndViewDefiningException;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Asks for the password again before what is {@link ProvenLately}, if the sign-in is older: an open laptop is not enough. A form
 * that was sent is kept in the page that asks, and goes on with it.
 */
@Component
class AsksAgain implements HandlerInterceptor, WebMvcConfigurer {

    private static final String AGAIN = "passwordAgain";
    private static final Set<String> OWN_FIELDS = Set.of(AGAIN, "_csrf");

    private final SignIn signIn;
    private final Entrance entrance;
    private final Clock clock;

    AsksAgain(SignIn signIn, Entrance entrance, Clock clock) {
        this.signIn = signIn;
        this.entrance = entrance;
        this.clock = clock;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this);
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) throws ModelAndViewDefiningException {
        // most handlers need no session for this, and what ships must come without one
        if (!(handler instanceof HandlerMethod method) || !method.hasMethodAnnotation(ProvenLately.class)) {
            return true;
        }
        Authentication signedIn = SecurityContextHolder.getContext().getAuthentication();
        if (signedIn == null || !(signedIn.getPrincipal() instanceof Person viewer) || !viewer.isTeacher() || signedIn.getDetails() instanceof Proof proof && proof.lasts(clock.instant())) {
            return true;
        }
        if (request.getHeader("HX-Request") != null) {
            response.setHeader("HX-Redirect", "/again?next=" + OwnPath.of(request.getHeader("HX-Current-URL")));
            response.setStatus(HttpStatus.NO_CONTENT.value());
            return false;
        }
        if (request.getHeader(StayingForms.HEADER) != null) {
            // the page that asks takes the place of the one with the form, with all that was typed: it has to be sent as a whole
            response.setStatus(HttpStatus.PRECONDITION_REQUIRED.value());
            return false;
        }
        boolean form = HttpMethod.POST.matches(request.getMethod());
        String password = request.getParameter(AGAIN);
        if (form && password != null && signIn.proves(viewer, password)) {
            entrance.proven(viewer, request, response);
            return true;
        }
        ModelAndView page = new ModelAndView("people/again");
        page.addObject("action", form ? request.getRequestURI() : "/again");
        page.addObject("fields", form ? fields(request) : Map.of("next", List.of(request.getRequestURI())));
        page.addObject("wrong", password != null);
        throw new ModelAndViewDefiningException(page);
    }

    private static Map<String, List<String>> fields(HttpServletRequest request) {
        Map<String, List<String>> fields = new LinkedHashMap<>();
        request.getParameterMap().forEach((name, values) -> {
            if (!OWN_FIELDS.contains(name)) {
                fields.put(name, List.of(values));
            }
        });
        return fields;
    }
}

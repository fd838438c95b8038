package org.mellowclass.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Pages say which build they are of; the scripts of an older one are asked to load their page again instead of mixing two. */
@ControllerAdvice
class Builds implements WebMvcConfigurer, HandlerInterceptor {

    private static final String HEADER = "X-Build";

    private final String build;

    Builds(@Value("${mellow.build}") String build) {
        this.build = build;
    }

    @ModelAttribute("build")
    String build() {
        return build;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this);
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        String ofPage = request.getHeader(HEADER);
        if (ofPage != null && !ofPage.isEmpty() && !ofPage.equals(build)) {
            throw Refusal.conflict("page.OLDER_BUILD");
        }
        return true;
    }
}

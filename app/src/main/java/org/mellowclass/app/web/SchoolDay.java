package org.mellowclass.app.web;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import org.springframework.security.web.util.matcher.RequestMatcher;
import org.springframework.web.filter.OncePerRequestFilter;

/** Ends a session that is older than a school day, however busy it is: laptops are shared. */
class SchoolDay extends OncePerRequestFilter {

    static final Duration LONGEST = Duration.ofHours(10);

    private final Clock clock;
    private final RequestMatcher withoutSession;

    SchoolDay(Clock clock, RequestMatcher withoutSession) {
        this.clock = clock;
        this.withoutSession = withoutSession;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return withoutSession.matches(request);
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        HttpSession session = request.getSession(false);
        if (session != null && Instant.ofEpochMilli(session.getCreationTime()).plus(LONGEST).isBefore(clock.instant())) {
            session.invalidate();
        }
        chain.doFilter(request, response);
    }
}

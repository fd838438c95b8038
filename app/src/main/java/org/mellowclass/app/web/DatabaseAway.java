package org.mellowclass.app.web;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLTransientConnectionException;
import java.util.Locale;

import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.MessageSource;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Component;
import org.springframework.util.FileCopyUtils;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Says that the database is away, to people and to scripts: before everything else, since even who is signed in stands there. Pages
 * that were asked for look again by themselves.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class DatabaseAway extends OncePerRequestFilter {

    private static final Logger LOG = LoggerFactory.getLogger(DatabaseAway.class);
    private static final int LOOK_AGAIN_SECONDS = 5;

    private final MessageSource messages;
    private final ObjectMapper json;
    private final String page;

    DatabaseAway(MessageSource messages, ObjectMapper json) throws IOException {
        this.messages = messages;
        this.json = json;
        try (var file = DatabaseAway.class.getResourceAsStream("/templates/away.html")) {
            page = new String(FileCopyUtils.copyToByteArray(file), StandardCharsets.UTF_8);
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        try {
            chain.doFilter(request, response);
        } catch (ServletException | RuntimeException failed) {
            if (response.isCommitted() || !isAway(failed)) {
                throw failed;
            }
            LOG.error("the database is away: {}", failed.toString());
            answer(request, response);
        }
    }

    private static boolean isAway(Throwable failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause()) {
            if (cause instanceof SQLTransientConnectionException || cause instanceof SQLNonTransientConnectionException) {
                return true;
            }
        }
        return false;
    }

    private void answer(HttpServletRequest request, HttpServletResponse response) throws IOException {
        response.reset();
        response.setStatus(HttpStatus.SERVICE_UNAVAILABLE.value());
        response.setHeader(HttpHeaders.RETRY_AFTER, Integer.toString(LOOK_AGAIN_SECONDS));
        response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
        response.setHeader("Content-Security-Policy", "default-src 'none'; style-src 'self'; font-src 'self'");
        String accept = request.getHeader(HttpHeaders.ACCEPT);
        if (accept != null && accept.contains(MediaType.TEXT_HTML_VALUE)) {
            if (HttpMethod.GET.matches(request.getMethod())) {
                response.setHeader("Refresh", Integer.toString(LOOK_AGAIN_SECONDS));
            }
            response.setContentType(MediaType.TEXT_HTML_VALUE + ";charset=UTF-8");
            response.getWriter().write(page.replace("{text}", text()));
        } else {
            response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
            json.writeValue(response.getWriter(), ProblemDetail.forStatusAndDetail(HttpStatus.SERVICE_UNAVAILABLE, text()));
        }
    }

    private String text() {
        return messages.getMessage("refusal.database-away", null, Locale.UK);
    }
}

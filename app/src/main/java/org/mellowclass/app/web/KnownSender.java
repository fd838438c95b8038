package org.mellowclass.app.web;

import java.io.IOException;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.security.authentication.AuthenticationCredentialsNotFoundException;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;

/**
 * Stands before the first filter that asks for a form's fields, since the server then writes all files of the form to the disk: a form
 * with files is read only if somebody is signed in and there is room for it.
 */
class KnownSender extends OncePerRequestFilter {

    private final AuthenticationEntryPoint entrance;
    private final LargeBodies bodies;
    private final HandlerExceptionResolver refusals;

    KnownSender(AuthenticationEntryPoint entrance, LargeBodies bodies, HandlerExceptionResolver refusals) {
        this.entrance = entrance;
        this.bodies = bodies;
        this.refusals = refusals;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String type = request.getContentType();
        return type == null || !type.toLowerCase().startsWith("multipart/");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        if (SecurityContextHolder.getContext().getAuthentication() == null) {
            // what was sent is not read: the connection is of no more use
            response.setHeader(HttpHeaders.CONNECTION, "close");
            entrance.commence(request, response, new AuthenticationCredentialsNotFoundException("a form with files"));
            return;
        }
        try {
            bodies.admit(Math.max(0, request.getContentLengthLong()));
        } catch (Refusal refusal) {
            response.setHeader(HttpHeaders.CONNECTION, "close");
            refusals.resolveException(request, response, null, refusal);
            return;
        }
        chain.doFilter(request, response);
    }
}

package org.mellowclass.app.web;

import java.io.IOException;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * A form that a script has sent, so that it can stay when it is refused, gets the address to go to in a header: a script that
 * follows a redirect would get a page that it has no use for.
 */
@Component
public class StayingForms extends OncePerRequestFilter {

    /** Stands on what a staying form sends. */
    public static final String HEADER = "X-Stays";

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return request.getHeader(HEADER) == null;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        chain.doFilter(request, new HttpServletResponseWrapper(response) {
            @Override
            public void sendRedirect(String location) {
                setStatus(SC_NO_CONTENT);
                setHeader("Go-To", location);
            }
        });
    }
}

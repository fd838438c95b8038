package org.mellowclass.app.people;

import java.time.Clock;
import java.util.List;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.mellowclass.app.securitylog.SecurityLog;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.authentication.session.SessionAuthenticationStrategy;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.stereotype.Component;

/** Lets somebody in whose secret has been checked: from now on the browser's requests are theirs. */
@Component
public class Entrance {

    private final SecurityContextRepository contexts;
    private final SessionAuthenticationStrategy sessions;
    private final SecurityLog log;
    private final Clock clock;

    Entrance(SecurityContextRepository contexts, SessionAuthenticationStrategy sessions, SecurityLog log, Clock clock) {
        this.contexts = contexts;
        this.sessions = sessions;
        this.log = log;
        this.clock = clock;
    }

    void welcome(Person person, HttpServletRequest request, HttpServletResponse response) {
        Authentication authentication = authentication(person);
        sessions.onAuthentication(authentication, request, response);
        keep(authentication, request, response);
        log.note(person.schoolId(), SecurityLog.Kind.SIGNED_IN, person.id(), null, null);
    }

    /** Remembers that somebody who is in already has just proven again who they are. */
    public void proven(Person person, HttpServletRequest request, HttpServletResponse response) {
        keep(authentication(person), request, response);
    }

    private Authentication authentication(Person person) {
        UsernamePasswordAuthenticationToken authentication = UsernamePasswordAuthenticationToken.authenticated(person, null,
                List.of(new SimpleGrantedAuthority("ROLE_" + person.role())));
        authentication.setDetails(new Proof(clock.instant()));
        return authentication;
    }

    private void keep(Authentication authentication, HttpServletRequest request, HttpServletResponse response) {
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(authentication);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
    }
}

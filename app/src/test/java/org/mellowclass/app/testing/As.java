package org.mellowclass.app.testing;

import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.authentication;

import java.time.Instant;
import java.util.List;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Proof;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.test.web.servlet.request.RequestPostProcessor;

/** Sends a test's request as somebody who is signed in. */
public final class As {

    private As() {
    }

    /** Signed in just now. */
    public static RequestPostProcessor person(Person person) {
        return person(person, Instant.now());
    }

    /** Signed in, and the password entered, at a moment. */
    public static RequestPostProcessor person(Person person, Instant provenAt) {
        UsernamePasswordAuthenticationToken signedIn = UsernamePasswordAuthenticationToken.authenticated(person, null,
                List.of(new SimpleGrantedAuthority("ROLE_" + person.role())));
        signedIn.setDetails(new Proof(provenAt));
        return authentication(signedIn);
    }
}

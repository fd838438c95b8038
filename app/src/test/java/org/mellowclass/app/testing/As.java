package org.mellowclass.app.testing;

import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.authentication;

import java.util.List;

import org.mellowclass.app.people.Person;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.test.web.servlet.request.RequestPostProcessor;

/** Sends a test's request as somebody who is signed in. */
public final class As {

    private As() {
    }

    public static RequestPostProcessor person(Person person) {
        return authentication(UsernamePasswordAuthenticationToken.authenticated(person, null,
                List.of(new SimpleGrantedAuthority("ROLE_" + person.role()))));
    }
}

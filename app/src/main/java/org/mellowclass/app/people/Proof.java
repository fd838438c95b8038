package org.mellowclass.app.people;

import java.io.Serializable;
import java.time.Duration;
import java.time.Instant;

/**
 * That somebody has proven who they are, by a password: the details of an authentication.
 *
 * @param at when it was, for the last time
 */
public record Proof(Instant at) implements Serializable {

    private static final Duration LASTS = Duration.ofMinutes(30);

    boolean lasts(Instant now) {
        return at.plus(LASTS).isAfter(now);
    }
}

package org.mellowclass.app.people;

import java.util.Locale;
import java.util.Optional;

/** Where a student's voice may be heard. */
public enum Consent {
    NONE, SCHOOL, PUBLIC;

    /** One of these steps by its name, as pages or earlier lists say it. Empty for anything else: a yes says to what by its question alone. */
    public static Optional<Consent> of(String words) {
        return switch (words.strip().toLowerCase(Locale.ROOT)) {
            case "none", "nowhere", "nowhere: no consent" -> Optional.of(NONE);
            case "school", "school only", "in school only" -> Optional.of(SCHOOL);
            case "public", "in public" -> Optional.of(PUBLIC);
            default -> Optional.empty();
        };
    }
}

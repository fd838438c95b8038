package org.mellowclass.app.people;

import java.util.Locale;
import java.util.Optional;

/** Where a student's voice may be heard. */
public enum Consent {
    NONE, SCHOOL, PUBLIC;

    /** As people write it in a list: none, school only, public; also no and yes. Empty if it is none of these. */
    public static Optional<Consent> of(String words) {
        return switch (words.strip().toLowerCase(Locale.ROOT)) {
            case "none", "no", "n" -> Optional.of(NONE);
            case "school", "school only" -> Optional.of(SCHOOL);
            case "public", "yes", "y" -> Optional.of(PUBLIC);
            default -> Optional.empty();
        };
    }
}

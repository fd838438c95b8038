package org.mellowclass.core.publish;

import java.util.EnumSet;
import java.util.Set;

/** What must be true before an episode may go on air. */
public final class AirGate {

    /** One thing that is still missing. */
    public enum Missing { CLEARANCE, TITLE, DESCRIPTION, CONSENT }

    /**
     * What is known when a teacher wants to publish.
     *
     * @param cleared          a teacher cleared exactly this hand-in, and it is the newest
     * @param consentConfirmed the teacher has confirmed that every voice in it may be heard in public
     */
    public record Facts(boolean cleared, String title, String description, boolean consentConfirmed) {
    }

    private AirGate() {
    }

    /** What is missing; empty when the episode may go on air. */
    public static Set<Missing> missing(Facts facts) {
        Set<Missing> missing = EnumSet.noneOf(Missing.class);
        if (!facts.cleared()) {
            missing.add(Missing.CLEARANCE);
        }
        if (facts.title() == null || facts.title().isBlank()) {
            missing.add(Missing.TITLE);
        }
        if (facts.description() == null || facts.description().isBlank()) {
            missing.add(Missing.DESCRIPTION);
        }
        if (!facts.consentConfirmed()) {
            missing.add(Missing.CONSENT);
        }
        return missing;
    }
}

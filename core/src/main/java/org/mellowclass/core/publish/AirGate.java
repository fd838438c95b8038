package org.mellowclass.core.publish;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** What must be true before an episode may go on air. */
public final class AirGate {

    /** One thing that is still missing. */
    public enum Missing { CLEARANCE, TITLE, DESCRIPTION, VOICES, CONSENT, CREDITS, READINGS, HEARD }

    /** How far a voice may be heard, as far as anybody has recorded it. */
    public enum Reach { UNKNOWN, NONE, SCHOOL, PUBLIC }

    /** A voice that is heard. */
    public record Voice(String name, Reach reach) {
    }

    /**
     * What is known when a teacher wants to publish.
     *
     * @param cleared          a teacher cleared exactly this hand-in, and it is the newest
     * @param unnamed          how many takes are heard of which nobody has said whose voices are in them
     * @param voices           every voice that is heard
     * @param credits          the credit line of every shelf sound that is heard
     * @param heard            teachers have heard every second of it, or one has said why it may go out all the same
     * @param toMend           how many readings are not good that must be, and that nobody has let through
     */
    public record Facts(boolean cleared, String title, String description, int unnamed, List<Voice> voices, List<String> credits, int toMend, boolean heard) {
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
        if (facts.unnamed() > 0) {
            missing.add(Missing.VOICES);
        }
        if (facts.voices().stream().anyMatch(voice -> voice.reach() != Reach.PUBLIC)) {
            missing.add(Missing.CONSENT);
        }
        if (facts.credits().stream().anyMatch(String::isBlank)) {
            missing.add(Missing.CREDITS);
        }
        if (facts.toMend() > 0) {
            missing.add(Missing.READINGS);
        }
        if (!facts.heard()) {
            missing.add(Missing.HEARD);
        }
        return missing;
    }
}

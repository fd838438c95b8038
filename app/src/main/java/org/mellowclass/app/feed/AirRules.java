package org.mellowclass.app.feed;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.core.soundcheck.Reading;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a class asks of the sound of its episodes before they go on air. */
@Service
@Transactional
public class AirRules {

    /**
     * The rule of a class.
     *
     * @param mustBeGood which readings
     * @param leadOnly   whether only who leads the school may let one through that is not
     */
    public record Rule(Set<Reading.Kind> mustBeGood, boolean leadOnly) {

        static final Rule NONE = new Rule(Set.of(), false);
    }

    private final AirRuleMapper rules;
    private final Access access;

    AirRules(AirRuleMapper rules, Access access) {
        this.rules = rules;
        this.access = access;
    }

    /** Of a class that somebody has been let through to. */
    @Transactional(readOnly = true)
    public Rule of(long classId) {
        return rules.find(classId).map(row -> new Rule(kinds(row.mustBeGood()), row.leadOnly())).orElse(Rule.NONE);
    }

    private static Set<Reading.Kind> kinds(String stored) {
        return Arrays.stream(stored.split(",")).filter(name -> !name.isEmpty()).map(Reading.Kind::valueOf).collect(Collectors.toCollection(() -> EnumSet.noneOf(Reading.Kind.class)));
    }

    public void change(Person viewer, long classId, Set<Reading.Kind> mustBeGood, boolean leadOnly) {
        access.taughtClass(viewer, classId);
        rules.put(classId, mustBeGood.stream().sorted().map(Enum::name).collect(Collectors.joining(",")), leadOnly);
    }

    /** @throws org.mellowclass.app.web.NotFound for who may not let a reading through */
    void requireMayLetThrough(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        if (of(classId).leadOnly()) {
            access.requireLead(viewer);
        }
    }
}

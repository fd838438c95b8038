package org.mellowclass.app.people;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.Optional;

import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Makes the school of an empty database, with its first teacher. Whoever started the application is told a key, so that
 * nobody else on the network can come first.
 */
@Service
@Transactional
public class FirstStart {

    private static final int LONGEST_SCHOOL_NAME = 120;

    private final PeopleMapper people;
    private final SchoolOffice office;
    private final String key = RandomKey.next();

    FirstStart(PeopleMapper people, SchoolOffice office) {
        this.people = people;
        this.office = office;
    }

    /** What the person who starts the application is told; empty once there is a school. */
    @Transactional(readOnly = true)
    public Optional<String> key() {
        return office.hasSchool() ? Optional.empty() : Optional.of(key);
    }

    void check(String asked) {
        boolean right = MessageDigest.isEqual(asked.getBytes(StandardCharsets.UTF_8), key.getBytes(StandardCharsets.UTF_8));
        if (office.hasSchool() || !right) {
            throw new NotFound();
        }
    }

    Person make(String asked, String school, String zone, String name, String email, String password) {
        check(asked);
        String schoolName = Fields.required(school, LONGEST_SCHOOL_NAME, "set-up.SCHOOL_NAME");
        try {
            ZoneId.of(zone);
        } catch (DateTimeException e) {
            throw Refusal.unfit("set-up.ZONE");
        }
        long schoolId = office.addSchool(schoolName, zone);
        if (people.firstStartDone(schoolId) == 0) {
            throw new NotFound();
        }
        return office.addTeacher(schoolId, name, email, password);
    }
}

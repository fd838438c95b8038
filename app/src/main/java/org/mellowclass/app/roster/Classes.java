package org.mellowclass.app.roster;

import java.security.SecureRandom;
import java.util.List;

import org.mellowclass.app.brief.Brief;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.FirstClass;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.SignedIn;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Frames;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes classes, each with a code to sign in with and a brief to begin from. */
@Service
@Transactional
public class Classes implements FirstClass {

    private static final int LONGEST_NAME = 60;
    /** Letters and digits that nobody takes for each other. */
    private static final String CODE_SIGNS = "ABCDEFGHJKMNPRSTUVWXYZ23456789";
    private static final int CODE_LENGTH = 6;
    private static final long SHORTEST = Frames.ofSeconds(60);
    private static final long LONGEST = Frames.ofSeconds(180);

    private final SchoolOffice office;
    private final Briefs briefs;
    private final RosterMapper roster;
    private final Access access;
    private final SignedIn signedIn;
    private final SecurityLog log;
    private final SecureRandom random = new SecureRandom();

    Classes(SchoolOffice office, Briefs briefs, RosterMapper roster, Access access, SignedIn signedIn, SecurityLog log) {
        this.office = office;
        this.briefs = briefs;
        this.roster = roster;
        this.access = access;
        this.signedIn = signedIn;
        this.log = log;
    }

    /** Makes a class that the viewer teaches; returns its id. */
    @Override
    public long add(Person viewer, String name) {
        if (!viewer.isTeacher()) {
            throw new NotFound();
        }
        String checked = Fields.required(name, LONGEST_NAME, "roster.CLASS_NAME");
        long classId = office.addClass(viewer, checked, freeCode());
        briefs.add(Brief.first(classId, "Our first episode", "", SHORTEST, LONGEST, null));
        return classId;
    }

    /** Who teaches a class. */
    public List<Person> teachers(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        return office.teachersOf(classId);
    }

    /** Takes another teacher off a class, at once: whatever they have open there ends. */
    @Transactional
    public void takeOff(Person viewer, long classId, long teacherId) {
        access.taughtClass(viewer, classId);
        if (teacherId == viewer.id()) {
            throw Refusal.conflict("roster.YOURSELF");
        }
        if (!office.removeTeacher(classId, teacherId)) {
            throw new NotFound();
        }
        log.note(viewer.schoolId(), SecurityLog.Kind.TEACHER_TAKEN_OFF, viewer.id(), teacherId, "class " + classId);
        signedIn.end(teacherId);
    }

    private String freeCode() {
        String code;
        do {
            StringBuilder signs = new StringBuilder();
            for (int i = 0; i < CODE_LENGTH; i++) {
                signs.append(CODE_SIGNS.charAt(random.nextInt(CODE_SIGNS.length())));
            }
            code = signs.toString();
        } while (roster.classesWithCode(code) > 0);
        return code;
    }
}

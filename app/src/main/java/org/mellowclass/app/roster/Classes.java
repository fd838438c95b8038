package org.mellowclass.app.roster;

import java.security.SecureRandom;

import org.mellowclass.app.brief.Brief;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Frames;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes classes, each with a code to sign in with and a brief to begin from. */
@Service
@Transactional
public class Classes {

    private static final int LONGEST_NAME = 60;
    /** Letters and digits that nobody takes for each other. */
    private static final String CODE_SIGNS = "ABCDEFGHJKMNPRSTUVWXYZ23456789";
    private static final int CODE_LENGTH = 6;
    private static final long SHORTEST = Frames.ofSeconds(60);
    private static final long LONGEST = Frames.ofSeconds(180);

    private final SchoolOffice office;
    private final Briefs briefs;
    private final RosterMapper roster;
    private final SecureRandom random = new SecureRandom();

    Classes(SchoolOffice office, Briefs briefs, RosterMapper roster) {
        this.office = office;
        this.briefs = briefs;
        this.roster = roster;
    }

    /** Makes a class that the viewer teaches; returns its id. */
    public long add(Person viewer, String name) {
        if (!viewer.isTeacher()) {
            throw new NotFound();
        }
        String checked = Fields.required(name, LONGEST_NAME, "roster.CLASS_NAME");
        long classId = office.addClass(viewer, checked, freeCode());
        briefs.add(Brief.first(classId, "Our first episode", "", SHORTEST, LONGEST, null));
        return classId;
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

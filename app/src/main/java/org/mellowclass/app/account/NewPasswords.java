package org.mellowclass.app.account;

import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.securitylog.SecurityLog;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Sets teachers' passwords, and tells them so by mail: whoever did not do it themselves learns of it. */
@Service
@Transactional
class NewPasswords {

    private final SchoolOffice office;
    private final Outbox outbox;
    private final SecurityLog log;

    NewPasswords(SchoolOffice office, Outbox outbox, SecurityLog log) {
        this.office = office;
        this.outbox = outbox;
        this.log = log;
    }

    void set(Person teacher, String password) {
        office.setPassword(teacher, password);
        log.note(teacher.schoolId(), SecurityLog.Kind.PASSWORD_CHANGED, teacher.id(), null, null);
        outbox.send(office.lead(teacher.schoolId()), office.email(teacher), "Your password was changed",
                "The password of " + teacher.name() + " was changed just now. If it was not you, set a new one at once: the sign-in page has a link for it.");
    }
}

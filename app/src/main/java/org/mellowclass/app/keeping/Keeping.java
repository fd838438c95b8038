package org.mellowclass.app.keeping;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;

import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.SignedIn;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * How long classes and schools are kept. One that goes is hidden at once, on air too, and can be taken back for two weeks. A class goes by
 * itself when its time is over; its teachers are told a month before.
 */
@Service
@Transactional
public class Keeping {

    /** How long something hidden can be taken back. */
    static final Duration TAKE_BACK = Duration.ofDays(14);
    static final Period WARNED_BEFORE = Period.ofDays(30);
    private static final Period LONGEST = Period.ofYears(3);

    private final KeepingMapper keeping;
    private final Access access;
    private final SchoolOffice office;
    private final SignedIn signedIn;
    private final Outbox outbox;
    private final SecurityLog log;
    private final Clock clock;

    Keeping(KeepingMapper keeping, Access access, SchoolOffice office, SignedIn signedIn, Outbox outbox, SecurityLog log, Clock clock) {
        this.keeping = keeping;
        this.access = access;
        this.office = office;
        this.signedIn = signedIn;
        this.outbox = outbox;
        this.log = log;
        this.clock = clock;
    }

    /**
     * How long a class is kept.
     *
     * @param goneAt since when it is hidden; null for one that is not
     */
    public record Kept(long id, long schoolId, String name, String timeZone, LocalDate keepUntil, Instant goneAt) {

        /** When a hidden one is deleted; null for one that is not hidden. */
        public Instant deletedAt() {
            return goneAt == null ? null : goneAt.plus(TAKE_BACK);
        }
    }

    /** How long a class is kept that the viewer teaches and that is not hidden. */
    @Transactional(readOnly = true)
    public Kept of(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        return keeping.taught(viewer.id(), classId).orElseThrow(NotFound::new);
    }

    /** The viewer's classes that are hidden, or whose time is over within a month. */
    @Transactional(readOnly = true)
    public List<Kept> going(Person viewer) {
        access.requireTeacher(viewer);
        return keeping.going(viewer.id(), today().plus(WARNED_BEFORE));
    }

    /** Keeps a class until the end of a day. @throws Refusal for a day that is over, or more than three years away */
    public void keepUntil(Person viewer, long classId, LocalDate day) {
        access.taughtClass(viewer, classId);
        if (day == null || day.isBefore(today()) || day.isAfter(today().plus(LONGEST))) {
            throw Refusal.unfit("keeping.DAY", LONGEST.getYears()).at("until");
        }
        keeping.keepUntil(classId, day);
    }

    /** Hides a class at once, to be deleted in two weeks: its students are signed out, and nothing of it is on air. */
    public void letGo(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        hide(viewer.id(), of(viewer, classId));
    }

    private void hide(Long by, Kept kept) {
        if (keeping.hide(kept.id(), clock.instant()) == 1) {
            log.note(kept.schoolId(), SecurityLog.Kind.CLASS_GOES, by, null, "class " + kept.id());
            keeping.people(kept.id()).stream().filter(person -> by == null || person != by.longValue()).forEach(signedIn::end);
        }
    }

    /** Takes a class back that is hidden. */
    public void takeBack(Person viewer, long classId) {
        access.requireTeacher(viewer);
        Kept kept = keeping.taught(viewer.id(), classId).orElseThrow(NotFound::new);
        if (keeping.takeBack(classId, today().plus(WARNED_BEFORE).plusDays(1)) == 0) {
            throw new NotFound();
        }
        log.note(kept.schoolId(), SecurityLog.Kind.CLASS_BACK, viewer.id(), null, "class " + classId);
    }

    /** When the viewer's school is deleted, if it is hidden. */
    @Transactional(readOnly = true)
    public Optional<Instant> schoolDeletedAt(Person viewer) {
        return keeping.schoolGoneAt(viewer.schoolId()).map(at -> at.plus(TAKE_BACK));
    }

    /** Hides the whole school at once, to be deleted in two weeks: everybody but its lead is signed out and stays out. */
    public void letSchoolGo(Person viewer) {
        access.requireLead(viewer);
        if (keeping.hideSchool(viewer.schoolId(), clock.instant()) == 1) {
            log.note(viewer.schoolId(), SecurityLog.Kind.SCHOOL_GOES, viewer.id(), null, null);
            office.everybody(viewer.schoolId()).stream().filter(id -> id != viewer.id()).forEach(signedIn::end);
        }
    }

    public void takeSchoolBack(Person viewer) {
        access.requireLead(viewer);
        keeping.takeSchoolBack(viewer.schoolId());
        log.note(viewer.schoolId(), SecurityLog.Kind.SCHOOL_BACK, viewer.id(), null, null);
    }

    /** Tells teachers of classes that go within a month, and hides those whose time is over. */
    public void look() {
        for (Kept kept : keeping.toWarn(today().plus(WARNED_BEFORE))) {
            if (keeping.warned(kept.id(), clock.instant()) == 1) {
                Person lead = office.lead(kept.schoolId());
                keeping.teachers(kept.id()).forEach(teacher -> outbox.send(lead, teacher.email(), kept.name() + " is deleted soon",
                        "Everything of " + kept.name() + " is hidden after " + kept.keepUntil() + " and deleted two weeks later: takes, episodes and names.\n"
                                + "To keep it longer, open the class, then Keeping."));
            }
        }
        keeping.over(today()).forEach(kept -> hide(null, kept));
    }

    /** The hidden classes that cannot be taken back any more. */
    @Transactional(readOnly = true)
    public List<Long> classesToDelete() {
        return keeping.classesGoneBefore(clock.instant().minus(TAKE_BACK));
    }

    /** The hidden schools that cannot be taken back any more. */
    @Transactional(readOnly = true)
    public List<Long> schoolsToDelete() {
        return keeping.schoolsGoneBefore(clock.instant().minus(TAKE_BACK));
    }

    /** The day that is over last anywhere: nobody's class goes early. */
    private LocalDate today() {
        return LocalDate.now(clock.withZone(ZoneOffset.ofHours(-12)));
    }
}

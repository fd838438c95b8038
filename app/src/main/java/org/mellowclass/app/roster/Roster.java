package org.mellowclass.app.roster;

import java.time.Clock;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.OnAirNames;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.SignIn;
import org.mellowclass.app.people.SignedIn;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.people.VoicesChanged;
import org.mellowclass.app.roster.RosterMapper.Recorded;
import org.mellowclass.app.roster.RosterPlan.Kind;
import org.mellowclass.app.roster.RosterPlan.Line;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** The students of a class: who they are, what they sign in with, where their voices may be heard. */
@Service
public class Roster {

    private static final int LONGEST_NUMBER = 40;
    private static final int LONGEST_SAID_BY = 120;

    private final RosterMapper roster;
    private final Access access;
    private final SchoolOffice office;
    private final Crews crews;
    private final SignIn signIn;
    private final SignedIn signedIn;
    private final PasswordEncoder encoder;
    private final SecurityLog log;
    private final ApplicationEventPublisher events;
    private final Clock clock;
    private final TransactionTemplate transaction;

    Roster(RosterMapper roster, Access access, SchoolOffice office, Crews crews, SignIn signIn, SignedIn signedIn, PasswordEncoder encoder, SecurityLog log, ApplicationEventPublisher events, Clock clock,
           TransactionTemplate transaction) {
        this.roster = roster;
        this.access = access;
        this.office = office;
        this.crews = crews;
        this.signIn = signIn;
        this.signedIn = signedIn;
        this.encoder = encoder;
        this.log = log;
        this.events = events;
        this.clock = clock;
        this.transaction = transaction;
    }

    @Transactional(readOnly = true)
    public List<Student> students(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        return roster.students(classId);
    }

    /** What importing a list would do. Nothing is written. */
    @Transactional(readOnly = true)
    public RosterPlan plan(Person viewer, long classId, String text, RosterPlan.Answers answers) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        return RosterPlan.of(RosterReader.read(text), roster.knownOfSchool(schoolClass.schoolId(), classId, viewer.id()), answers);
    }

    /**
     * Imports a list, all of it or nothing; rows that cannot be used are left out. Importing it again changes nothing.
     *
     * @param saidBy who agreed to the list's consents, and how; may be empty: it is never taken to be who brings the list in
     * @throws Refusal if something in doubt has no answer
     */
    public RosterPlan importList(Person viewer, long classId, String text, RosterPlan.Answers answers, String saidBy) {
        String checked = Fields.optional(saidBy, LONGEST_SAID_BY, "roster.SAID_BY");
        RosterPlan plan = plan(viewer, classId, text, answers);
        if (!plan.clear()) {
            throw Refusal.conflict("roster.ASK");
        }
        // hashing is slow on purpose: before the transaction, on all processors
        Map<Line, Fresh> fresh = plan.lines().parallelStream().filter(line -> line.kind() == Kind.NEW)
                .collect(Collectors.toConcurrentMap(line -> line, line -> fresh()));
        transaction.executeWithoutResult(status -> {
            plan.lines().forEach(line -> write(viewer, classId, line, fresh.get(line), checked));
            // a list takes its time: what is on air is looked at when all of it stands
            plan.lines().stream().filter(line -> line.student() != null && line.entry() != null && line.entry().consent() != null)
                    .forEach(line -> said(viewer, line.student().id()));
        });
        return plan;
    }

    private void write(Person viewer, long classId, Line line, Fresh fresh, String saidBy) {
        if (line.kind() == Kind.BAD || line.kind() == Kind.SAME) {
            return;
        }
        if (line.kind() == Kind.WAITS) {
            // nothing of somebody else's student is changed before the answer
            roster.askToJoin(classId, line.student().id(), viewer.id(), clock.instant());
            return;
        }
        RosterReader.Entry entry = line.entry();
        RosterPlan.Known known = line.student();
        long id;
        if (known == null) {
            Person added = office.addStudentWithHash(viewer.schoolId(), entry.name(), fresh.hash);
            id = added.id();
            roster.newPassphrase(id, fresh.passphrase, fresh.hash);
        } else {
            id = known.id();
        }
        String number = entry.number().isEmpty() && known != null ? known.number() : entry.number();
        String onAirName = !entry.onAirName().isEmpty() ? entry.onAirName()
                : known != null && !OnAirNames.tellsSurname(known.onAirName(), entry.name()) ? known.onAirName() : OnAirNames.first(entry.name());
        roster.change(id, entry.name(), number.isEmpty() ? null : number, onAirName);
        roster.joinClass(classId, id);
        if (entry.consent() != null && (known == null || known.consent() != entry.consent())) {
            record(viewer, id, entry.consent(), saidBy);
        }
        if (!entry.crew().isEmpty()) {
            crews.move(viewer, classId, id, crews.named(viewer, classId, entry.crew()).id());
        }
    }

    /** Adds one student by hand. */
    public void add(Person viewer, long classId, String name) {
        access.taughtClass(viewer, classId);
        String checked = Fields.required(name, SchoolOffice.LONGEST_NAME, "set-up.NAME");
        Fresh fresh = fresh();
        transaction.executeWithoutResult(status -> {
            Person added = office.addStudentWithHash(viewer.schoolId(), checked, fresh.hash);
            roster.newPassphrase(added.id(), fresh.passphrase, fresh.hash);
            roster.joinClass(classId, added.id());
        });
    }

    /** Changes what is known of a student. A consent that is null or the same as before is not recorded anew. */
    @Transactional
    public void change(Person viewer, long classId, long studentId, String name, String number, String onAirName, Consent consent) {
        Student student = student(viewer, classId, studentId);
        String checked = Fields.required(name, SchoolOffice.LONGEST_NAME, "set-up.NAME");
        String onAir = Fields.required(onAirName, SchoolOffice.LONGEST_NAME, "roster.ON_AIR_NAME");
        if (OnAirNames.tellsSurname(onAir, checked)) {
            throw Refusal.unfit("roster.ON_AIR_SURNAME").at("onAirName");
        }
        String checkedNumber = Fields.optional(number, LONGEST_NUMBER, "roster.NUMBER");
        try {
            roster.change(studentId, checked, checkedNumber.isEmpty() ? null : checkedNumber, onAir);
        } catch (DuplicateKeyException taken) {
            throw Refusal.conflict("roster.NUMBER_TAKEN", checkedNumber);
        }
        if (consent != null && consent != student.consent()) {
            record(viewer, studentId, consent, "");
            said(viewer, studentId);
        }
    }

    /**
     * Records one consent for several students of a class.
     *
     * @param saidBy who agreed, and how; may be empty
     */
    @Transactional
    public void agree(Person viewer, long classId, List<Long> studentIds, Consent consent, String saidBy) {
        Set<Long> here = students(viewer, classId).stream().map(Student::id).collect(Collectors.toSet());
        String checked = Fields.optional(saidBy, LONGEST_SAID_BY, "roster.SAID_BY");
        if (studentIds.isEmpty()) {
            throw Refusal.unfit("roster.NOBODY_TICKED");
        }
        if (!here.containsAll(studentIds)) {
            throw new NotFound();
        }
        for (long studentId : Set.copyOf(studentIds)) {
            record(viewer, studentId, consent, checked);
            said(viewer, studentId);
        }
    }

    private void record(Person viewer, long studentId, Consent consent, String saidBy) {
        roster.addConsent(studentId, consent, saidBy, viewer.id(), clock.instant());
        log.note(viewer.schoolId(), SecurityLog.Kind.CONSENT, viewer.id(), studentId, consent.name());
    }

    private void said(Person viewer, long studentId) {
        events.publishEvent(new VoicesChanged.ConsentSaid(viewer, new Speaker.Student(studentId)));
    }

    /** Every consent that was recorded for a student, the newest first. */
    @Transactional(readOnly = true)
    public List<Recorded> consents(Person viewer, long classId, long studentId) {
        student(viewer, classId, studentId);
        return roster.consents(studentId);
    }

    /** Takes a student out of the class. Their takes and words stay with their crew. */
    @Transactional
    public void leave(Person viewer, long classId, long studentId) {
        student(viewer, classId, studentId);
        crews.move(viewer, classId, studentId, 0);
        roster.leaveClass(classId, studentId);
        roster.findHome(studentId);
        signedIn.end(studentId);
    }

    /** What teachers of other classes ask about students of this one. */
    @Transactional(readOnly = true)
    public List<JoinRequest> joinRequests(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        return roster.joinRequests(classId);
    }

    /** Lets a student of this class into another one too that has asked, or not. */
    @Transactional
    public void answerJoin(Person viewer, long classId, long otherClassId, long studentId, boolean yes) {
        student(viewer, classId, studentId);
        if (roster.answered(otherClassId, studentId) == 1 && yes) {
            roster.joinClass(otherClassId, studentId);
        }
    }

    /** Lets a student try to sign in again at once who was guessed at, or has forgotten too often. */
    public void unlock(Person viewer, long classId, long studentId) {
        signIn.unlock(student(viewer, classId, studentId).id());
        log.note(viewer.schoolId(), SecurityLog.Kind.UNLOCKED, viewer.id(), studentId, null);
    }

    /** Gives students new passphrases, in their home class only; those that they had do not work any more, and who is signed in with them is signed out. */
    public void newPassphrases(Person viewer, long classId, Collection<Long> studentIds) {
        List<Student> students = students(viewer, classId).stream().filter(student -> studentIds.contains(student.id())).toList();
        if (students.size() < Set.copyOf(studentIds).size()) {
            throw new NotFound();
        }
        students.stream().filter(student -> !student.home()).findFirst().ifPresent(elsewhere -> {
            throw Refusal.conflict("roster.HOME", elsewhere.name());
        });
        Map<Long, Fresh> fresh = new HashMap<>(students.parallelStream()
                .collect(Collectors.toConcurrentMap(Student::id, student -> fresh())));
        transaction.executeWithoutResult(status ->
                fresh.forEach((id, made) -> {
                    roster.newPassphrase(id, made.passphrase, made.hash);
                    log.note(viewer.schoolId(), SecurityLog.Kind.PASSPHRASE_MADE, viewer.id(), id, null);
                }));
        fresh.keySet().forEach(signedIn::end);
    }

    /** The students of a class whose passphrases can still be read, for printing their cards. */
    @Transactional(readOnly = true)
    public List<Student> printable(Person viewer, long classId) {
        return students(viewer, classId).stream().filter(student -> student.freshPassphrase() != null).toList();
    }

    private record Fresh(String passphrase, String hash) {
    }

    private Fresh fresh() {
        String passphrase = Passphrases.next();
        return new Fresh(passphrase, encoder.encode(passphrase));
    }

    private Student student(Person viewer, long classId, long studentId) {
        return students(viewer, classId).stream().filter(student -> student.id() == studentId).findFirst().orElseThrow(NotFound::new);
    }
}

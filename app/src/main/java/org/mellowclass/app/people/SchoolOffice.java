package org.mellowclass.app.people;

import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

import org.mellowclass.app.people.PeopleMapper.NewRow;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes schools, people, classes and crews; whoever asks has been let through already. */
@Service
@Transactional
public class SchoolOffice {

    public static final int LONGEST_NAME = 80;
    public static final int LONGEST_ADDRESS = 190;

    private final PeopleMapper people;
    private final PasswordEncoder encoder;
    private final Clock clock;

    SchoolOffice(PeopleMapper people, PasswordEncoder encoder, Clock clock) {
        this.people = people;
        this.encoder = encoder;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    public boolean hasSchool() {
        return people.schools() > 0;
    }

    public long addSchool(String name, String timeZone) {
        NewRow row = new NewRow();
        people.addSchool(row, name, timeZone);
        return row.id();
    }

    public Person addTeacher(long schoolId, String name, String email, String password) {
        Passwords.check(password, List.of(name, email));
        try {
            Person teacher = addPerson(schoolId, Person.Role.TEACHER, name, address(email), password);
            people.leadsIfFirst(schoolId, teacher.id());
            return teacher;
        } catch (DuplicateKeyException taken) {
            throw Refusal.conflict("set-up.EMAIL_TAKEN");
        }
    }

    /** Sets a teacher's new password, which nobody is signed in with yet. */
    public void setPassword(Person teacher, String password) {
        Passwords.check(password, List.of(teacher.name(), people.emailOf(teacher.id()).orElse("")));
        people.setSecret(teacher.id(), encoder.encode(password));
    }

    /** The e-mail address of a teacher. */
    @Transactional(readOnly = true)
    public String email(Person teacher) {
        return people.emailOf(teacher.id()).orElseThrow();
    }

    /** Whether somebody leads their school. */
    @Transactional(readOnly = true)
    public boolean leads(Person person) {
        return people.leads(person.id());
    }

    /** Who leads a school. */
    @Transactional(readOnly = true)
    public Person lead(long schoolId) {
        return people.lead(schoolId);
    }

    @Transactional(readOnly = true)
    public Optional<Person> teacher(String email) {
        return people.teacherByEmail(email.strip().toLowerCase(Locale.ROOT)).map(PeopleMapper.WithSecret::person);
    }

    @Transactional(readOnly = true)
    public Optional<Person> person(long id) {
        return people.person(id);
    }

    /** A student, whose on-air name is their first name until somebody says otherwise. */
    public Person addStudent(long schoolId, String name, String passphrase) {
        return addPerson(schoolId, Person.Role.STUDENT, name, null, SignIn.plain(passphrase));
    }

    /** A student whose passphrase has been hashed already, since that is slow. */
    public Person addStudentWithHash(long schoolId, String name, String secretHash) {
        return addHashed(schoolId, Person.Role.STUDENT, name, null, secretHash);
    }

    public long addClass(Person teacher, String name, String code) {
        NewRow row = new NewRow();
        people.addClass(row, teacher.schoolId(), name, code, SchoolYear.keptUntil(LocalDate.now(clock.withZone(zone(teacher.schoolId())))));
        people.addTeacherToClass(row.id(), teacher.id());
        return row.id();
    }

    /** The class of a school that nobody teaches, for practice. */
    public long addPracticeClass(long schoolId, String code) {
        NewRow row = new NewRow();
        people.addClass(row, schoolId, "Practice", code, SchoolYear.keptUntil(LocalDate.now(clock.withZone(zone(schoolId)))));
        people.forPractice(row.id());
        return row.id();
    }

    /** A crew of one student, who is not in its class; returns the episode's id. */
    public long addPracticeCrew(long classId, Person student) {
        long episodeId = addCrew(classId, "Practice " + student.id(), "Practice", List.of());
        people.addCrewMember(people.crewOf(episodeId), student.id());
        return episodeId;
    }

    public void addTeacherToClass(long classId, Person teacher) {
        people.addTeacherToClass(classId, teacher.id());
    }

    @Transactional(readOnly = true)
    public List<Person> teachersOf(long classId) {
        return people.teachersOf(classId);
    }

    /** Whether somebody taught the class until now. */
    public boolean removeTeacher(long classId, long personId) {
        return people.removeTeacher(classId, personId) == 1;
    }

    /** The ids of everybody who has an account at a school. */
    @Transactional(readOnly = true)
    public List<Long> everybody(long schoolId) {
        return people.everybody(schoolId);
    }

    /**
     * What a school tells listeners of itself.
     *
     * @param contact where they may write; empty for nowhere
     * @param indexed whether search engines may list what is on air
     */
    public record Listeners(String contact, boolean indexed) {
    }

    @Transactional(readOnly = true)
    public Listeners listeners(long schoolId) {
        return people.listeners(schoolId);
    }

    /** For the school's lead, who has been let through. */
    public void setListeners(long schoolId, String contact, boolean indexed) {
        people.setListeners(schoolId, Fields.plain(contact).isEmpty() ? null : address(contact), indexed);
    }

    /** The time zone of a school. */
    @Transactional(readOnly = true)
    public ZoneId zone(long schoolId) {
        return ZoneId.of(people.zone(schoolId));
    }

    /** A crew of students of a class, and the episode that it makes; returns the episode's id. */
    public long addCrew(long classId, String name, String episodeTitle, Collection<Person> students) {
        NewRow crew = new NewRow();
        people.addCrew(crew, classId, name);
        for (Person student : students) {
            people.addStudentToClass(classId, student.id());
            people.addCrewMember(crew.id(), student.id());
        }
        NewRow episode = new NewRow();
        people.addEpisode(episode, crew.id(), episodeTitle);
        return episode.id();
    }

    /** An e-mail address as it is kept: one that could be one, in lower case. */
    static String address(String email) {
        String address = Fields.required(email, LONGEST_ADDRESS, "set-up.EMAIL").toLowerCase(Locale.ROOT);
        if (!address.matches("[^\\s@]+@[^\\s@]+\\.[^\\s@.]+")) {
            throw Refusal.unfit("set-up.EMAIL", LONGEST_ADDRESS);
        }
        return address;
    }

    private Person addPerson(long schoolId, Person.Role role, String name, String email, String secret) {
        return addHashed(schoolId, role, name, email, encoder.encode(secret));
    }

    private Person addHashed(long schoolId, Person.Role role, String name, String email, String secretHash) {
        String stripped = Fields.required(name, LONGEST_NAME, "set-up.NAME");
        NewRow row = new NewRow();
        people.addPerson(row, schoolId, role, stripped, email, secretHash,
                role == Person.Role.STUDENT ? OnAirNames.first(stripped) : null);
        return new Person(row.id(), schoolId, role, stripped);
    }
}

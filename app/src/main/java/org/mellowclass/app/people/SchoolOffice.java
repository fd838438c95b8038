package org.mellowclass.app.people;

import java.util.Collection;
import java.util.Locale;

import org.mellowclass.app.people.PeopleMapper.NewRow;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes schools, people, classes and crews. Until class set-up has pages, only the demo school and the tests use it. */
@Service
@Transactional
public class SchoolOffice {

    private final PeopleMapper people;
    private final PasswordEncoder encoder;

    SchoolOffice(PeopleMapper people, PasswordEncoder encoder) {
        this.people = people;
        this.encoder = encoder;
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
        return addPerson(schoolId, Person.Role.TEACHER, name, email.toLowerCase(Locale.ROOT), password);
    }

    public Person addStudent(long schoolId, String name, String passphrase) {
        return addPerson(schoolId, Person.Role.STUDENT, name, null, SignIn.plain(passphrase));
    }

    public long addClass(Person teacher, String name, String code) {
        NewRow row = new NewRow();
        people.addClass(row, teacher.schoolId(), name, code);
        people.addTeacherToClass(row.id(), teacher.id());
        return row.id();
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

    private Person addPerson(long schoolId, Person.Role role, String name, String email, String secret) {
        NewRow row = new NewRow();
        people.addPerson(row, schoolId, role, name, email, encoder.encode(secret));
        return new Person(row.id(), schoolId, role, name);
    }
}

package org.mellowclass.app.people;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.mellowclass.app.web.NotFound;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Who may reach what. Every service asks here first; what belongs to others is {@link NotFound}. */
@Service
public class Access {

    private final PeopleMapper people;
    private final Clock clock;

    Access(PeopleMapper people, Clock clock) {
        this.people = people;
        this.clock = clock;
    }

    /** An episode that the viewer may look at: their crew's, or one of a class they teach. */
    public Episode episode(Person viewer, long episodeId) {
        Optional<Episode> episode = viewer.isTeacher()
                ? people.episodeOfTeacher(viewer.id(), episodeId) : people.episodeOfMember(viewer.id(), episodeId);
        return episode.orElseThrow(NotFound::new);
    }

    /** An episode that the viewer's own crew makes: only its students change it. */
    public Episode ownEpisode(Person viewer, long episodeId) {
        if (viewer.isTeacher()) {
            throw new NotFound();
        }
        return episode(viewer, episodeId);
    }

    /** As {@link #episode}, for a page: when somebody of the crew opens it, that is remembered, to the minute. */
    @Transactional
    public Episode openedEpisode(Person viewer, long episodeId) {
        Episode episode = episode(viewer, episodeId);
        if (!viewer.isTeacher()) {
            Instant now = clock.instant();
            people.opened(episodeId, now, now.minus(Duration.ofMinutes(1)));
        }
        return episode;
    }

    /** Somebody who teaches the class of an episode: for work that no one is signed in for. */
    public Optional<Person> teacherOf(long episodeId) {
        return people.teacherOfEpisode(episodeId);
    }

    /** An episode that the viewer judges and publishes as the class's teacher. */
    public Episode taughtEpisode(Person viewer, long episodeId) {
        if (!viewer.isTeacher()) {
            throw new NotFound();
        }
        return episode(viewer, episodeId);
    }

    /**
     * Holds an episode until the surrounding transaction ends, so that edits, hand-ins, decisions and publishing come one
     * after the other.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void hold(long episodeId) {
        people.lockEpisode(episodeId);
    }

    /** A class that the viewer teaches. */
    public SchoolClass taughtClass(Person viewer, long classId) {
        return viewer.isTeacher() ? people.taughtClass(viewer.id(), classId).orElseThrow(NotFound::new) : notFound();
    }

    /** A class that the viewer teaches or is in. */
    public SchoolClass sharedClass(Person viewer, long classId) {
        return viewer.isTeacher() ? taughtClass(viewer, classId)
                : people.classOfStudent(viewer.id(), classId).orElseThrow(NotFound::new);
    }

    /** Lets through who teaches. */
    public void requireTeacher(Person viewer) {
        if (!viewer.isTeacher()) {
            throw new NotFound();
        }
    }

    public boolean leads(Person viewer) {
        return viewer.isTeacher() && people.leads(viewer.id());
    }

    /** Lets through who leads their school. */
    public void requireLead(Person viewer) {
        if (!leads(viewer)) {
            throw new NotFound();
        }
    }

    public List<SchoolClass> classesOf(Person teacher) {
        return people.classesOf(teacher.id());
    }

    public List<Episode> episodesOf(Person student) {
        return people.episodesOf(student.id());
    }

    /** Whether a class is one for practice: what is made there is nobody's work. */
    public boolean isPractice(long classId) {
        return people.isPractice(classId);
    }

    /** The students of a crew whose episode {@link #episode} has let through. */
    public List<Person> crewOf(Episode episode) {
        return people.members(episode.crewId());
    }

    private static SchoolClass notFound() {
        throw new NotFound();
    }
}

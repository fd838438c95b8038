package org.mellowclass.app.erasing;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.sounds.ForgottenSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** A child may ask for a take to be erased; what is left to do of it once the teacher agrees. */
@Service
@Transactional
public class Erasing {

    private final EraseRequestMapper requests;
    private final TakeRows takes;
    private final Recording recording;
    private final ForgottenSounds sounds;
    private final Access access;
    private final LiveEvents live;
    private final Clock clock;

    Erasing(EraseRequestMapper requests, TakeRows takes, Recording recording, ForgottenSounds sounds, Access access, LiveEvents live, Clock clock) {
        this.requests = requests;
        this.takes = takes;
        this.recording = recording;
        this.sounds = sounds;
        this.access = access;
        this.live = live;
        this.clock = clock;
    }

    /** What a teacher is asked. */
    public record Request(long takeId, long episodeId, String takeName, String crewName, String askedBy, Instant askedAt) {
    }

    /** Asks the teacher; asking twice is asking once. Returns the take's episode. */
    public long ask(Person viewer, long takeId) {
        Take take = takes.find(takeId).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, take.episodeId());
        if (take.origin() == Take.Origin.SHELF || take.state() == Take.State.ERASED) {
            throw Refusal.conflict("take.NOT_TO_ERASE");
        }
        requests.ask(takeId, viewer.id(), clock.instant());
        live.episodeChanged(take.episodeId());
        return take.episodeId();
    }

    /** The requests of a class that {@link Access#taughtClass} has let through. */
    @Transactional(readOnly = true)
    public List<Request> requests(SchoolClass schoolClass) {
        return requests.ofClass(schoolClass.id());
    }

    /** The takes of an episode for which somebody waits for an answer; the viewer has been let through. */
    @Transactional(readOnly = true)
    public Set<Long> asked(long episodeId) {
        return requests.ofEpisode(episodeId);
    }

    /** A take that is asked about, for its teacher. */
    @Transactional(readOnly = true)
    public Take asked(Person viewer, long takeId) {
        Take take = takes.find(takeId).orElseThrow(NotFound::new);
        access.taughtEpisode(viewer, take.episodeId());
        return take;
    }

    /** Somebody who teaches the class of a take that is not erased; nobody for any other. */
    @Transactional(readOnly = true)
    public Optional<Person> teacherOf(long takeId) {
        return takes.findWithNotes(takeId).filter(take -> take.state() != Take.State.ERASED).flatMap(take -> access.teacherOf(take.episodeId()));
    }

    /** What was spoken in a note; empty for a take of the crew's, and for one that is erased. */
    @Transactional(readOnly = true)
    public Optional<Take> ofNote(long takeId) {
        return takes.findWithNotes(takeId).filter(take -> take.origin() == Take.Origin.NOTE && take.state() != Take.State.ERASED);
    }

    /** Keeps a take that somebody wanted to be erased. */
    public void keep(Person viewer, long takeId) {
        Take take = asked(viewer, takeId);
        requests.answer(takeId, "KEPT", viewer.id(), clock.instant());
        live.episodeChanged(take.episodeId());
    }

    /** Empties the take's row and chunks; returns the keys of the files that have to go when the transaction has ended. */
    @Transactional(propagation = Propagation.MANDATORY)
    public List<String> empty(Person viewer, Take take) {
        takes.lockWithNotes(take.id());
        requests.answer(take.id(), "ERASED", viewer.id(), clock.instant());
        takes.erased(take.id());
        recording.forget(take.id());
        live.episodeChanged(take.episodeId());
        return sounds.forget(take.id());
    }
}

package org.mellowclass.app.takes;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.takes.TakeMapper.EraseRequest;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** A child may ask for a take to be erased; what is left to do of it once the teacher agrees. */
@Service
@Transactional
public class Erasing {

    private final TakeMapper takes;
    private final Access access;
    private final LiveEvents live;
    private final Clock clock;

    Erasing(TakeMapper takes, Access access, LiveEvents live, Clock clock) {
        this.takes = takes;
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
        takes.askToErase(takeId, viewer.id(), clock.instant());
        live.episodeChanged(take.episodeId());
        return take.episodeId();
    }

    /** The requests of a class that {@link Access#taughtClass} has let through. */
    @Transactional(readOnly = true)
    public List<Request> requests(SchoolClass schoolClass) {
        return takes.eraseRequests(schoolClass.id()).stream().map(Erasing::request).toList();
    }

    private static Request request(EraseRequest row) {
        return new Request(row.takeId(), row.episodeId(), row.takeName(), row.crewName(), row.askedBy(), row.askedAt());
    }

    /** The takes of an episode for which somebody waits for an answer; the viewer has been let through. */
    @Transactional(readOnly = true)
    public Set<Long> asked(long episodeId) {
        return takes.askedToErase(episodeId);
    }

    /** A take that is asked about, for its teacher. */
    @Transactional(readOnly = true)
    public Take asked(Person viewer, long takeId) {
        Take take = takes.find(takeId).orElseThrow(NotFound::new);
        access.taughtEpisode(viewer, take.episodeId());
        return take;
    }

    /** Everything that holds the sound of a take that {@link #asked(Person, long)} has let through. */
    @Transactional(readOnly = true)
    public List<Take> family(Take take) {
        return takes.family(take.id());
    }

    /** Keeps a take that somebody wanted to be erased. */
    public void keep(Person viewer, long takeId) {
        Take take = asked(viewer, takeId);
        takes.answerErase(takeId, "KEPT", viewer.id(), clock.instant());
        live.episodeChanged(take.episodeId());
    }

    /** Empties the take's row and chunks; returns the keys of the files that have to go when the transaction has ended. */
    @Transactional(propagation = Propagation.MANDATORY)
    public List<String> empty(Person viewer, Take take) {
        takes.lock(take.id());
        takes.answerErase(take.id(), "ERASED", viewer.id(), clock.instant());
        takes.erased(take.id());
        takes.deleteChunks(take.id());
        takes.deleteFlags(take.id());
        live.episodeChanged(take.episodeId());
        return Stream.of(take.originalKey(), take.soundKey(), take.skylineKey()).filter(key -> key != null).toList();
    }
}

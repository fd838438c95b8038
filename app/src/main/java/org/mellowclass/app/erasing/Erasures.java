package org.mellowclass.app.erasing;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.store.KeptBytes;
import org.mellowclass.app.takes.Take;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Erases a take everywhere: its sound and all that were made of it; its clips; hand-ins that hold it, which are made again without
 * it; an episode on air that holds it, which is taken off.
 */
@Service
public class Erasures {

    private static final Logger LOG = LoggerFactory.getLogger(Erasures.class);

    private final Erasing erasing;
    private final PlacedTakes placed;
    private final HandIns handIns;
    private final AirDesk airDesk;
    private final Access access;
    private final List<KeptBytes> stores;
    private final ErasedJournal journal;
    private final SecurityLog log;
    private final TransactionTemplate transaction;

    Erasures(Erasing erasing, PlacedTakes placed, HandIns handIns, AirDesk airDesk, Access access, List<KeptBytes> stores, ErasedJournal journal, SecurityLog log,
             TransactionTemplate transaction) {
        this.erasing = erasing;
        this.placed = placed;
        this.handIns = handIns;
        this.airDesk = airDesk;
        this.access = access;
        this.stores = stores;
        this.journal = journal;
        this.log = log;
        this.transaction = transaction;
    }

    /** Erases a take of an episode whose class the viewer teaches; returns the class. A second call changes nothing. */
    public long erase(Person viewer, long takeId) throws IOException {
        Take take = erasing.asked(viewer, takeId);
        long classId = access.taughtEpisode(viewer, take.episodeId()).classId();
        if (take.state() == Take.State.ERASED || take.origin() == Take.Origin.SHELF) {
            return classId;
        }
        Episode episode = access.taughtEpisode(viewer, take.episodeId());
        List<String> files = new ArrayList<>();
        transaction.executeWithoutResult(status -> {
            // one lock with publishing: whoever comes second sees what the first did
            access.hold(episode.id());
            airDesk.takeOff(episode.id(), live -> handIns.holds(live.handInId(), takeId)).ifPresent(files::add);
            files.addAll(erasing.empty(viewer, take));
            placed.erase(viewer, episode.id(), takeId);
            files.addAll(handIns.makeAgainWithout(episode.id(), takeId));
            note(takeId, files);
            log.note(viewer.schoolId(), SecurityLog.Kind.ERASED, viewer.id(), null, "take " + takeId + " of episode " + episode.id());
        });
        delete(files);
        return classId;
    }

    /**
     * Does to its end what was killed half-way, and erases again what a restored backup has brought back. What cannot be erased now keeps
     * no school from starting: it stands in the journal until the next start.
     */
    @EventListener(ApplicationReadyEvent.class)
    public void again() throws IOException {
        for (long takeId : journal.takes()) {
            try {
                Optional<Person> teacher = erasing.teacherOf(takeId);
                if (teacher.isPresent()) {
                    erase(teacher.get(), takeId);
                }
            } catch (IOException | RuntimeException failed) {
                LOG.error("take {} could not be erased again", takeId, failed);
            }
        }
        delete(journal.files());
    }

    private void note(long takeId, List<String> files) {
        try {
            journal.write(takeId, files);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void delete(List<String> files) throws IOException {
        for (String key : files) {
            for (KeptBytes store : stores) {
                store.delete(key);
            }
        }
    }
}

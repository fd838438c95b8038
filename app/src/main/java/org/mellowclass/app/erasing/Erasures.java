package org.mellowclass.app.erasing;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.feed.Publication;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.review.MarginNotes;
import org.mellowclass.app.review.SpokenNoteGone;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.takes.Take;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Erases a take everywhere: its sound and all that were made of it; its clips; hand-ins that hold it, which are made again without
 * it; an episode on air that holds it, which is taken off.
 */
@Service
public class Erasures {

    private final Erasing erasing;
    private final PlacedTakes placed;
    private final HandIns handIns;
    private final MarginNotes notes;
    private final AirDesk airDesk;
    private final Voices voices;
    private final Access access;
    private final ErasedFiles erasedFiles;
    private final ErasedJournal journal;
    private final SecurityLog log;
    private final TransactionTemplate transaction;

    Erasures(Erasing erasing, PlacedTakes placed, HandIns handIns, MarginNotes notes, AirDesk airDesk, Voices voices, Access access, ErasedFiles erasedFiles, ErasedJournal journal,
             SecurityLog log, TransactionTemplate transaction) {
        this.erasing = erasing;
        this.placed = placed;
        this.handIns = handIns;
        this.notes = notes;
        this.airDesk = airDesk;
        this.voices = voices;
        this.access = access;
        this.erasedFiles = erasedFiles;
        this.journal = journal;
        this.log = log;
        this.transaction = transaction;
    }

    /** Erases a take of an episode whose class the viewer teaches; returns the class. A second call changes nothing. */
    public long erase(Person viewer, long takeId) throws IOException {
        Take take = erasing.asked(viewer, takeId);
        long classId = access.taughtEpisode(viewer, take.episodeId()).classId();
        erase(viewer, take);
        return classId;
    }

    /**
     * What is asked before a take is erased.
     *
     * @param voices  who speaks in it; empty where nobody has said, or nobody speaks
     * @param silent  whether somebody has said that nobody speaks in it
     * @param onPage  whether the crew's page plays it
     * @param handIns the numbers of hand-ins that hold it
     * @param onAir   the title under which it is on air; null if it is not
     */
    public record Heard(Take take, List<String> voices, boolean silent, boolean onPage, List<Integer> handIns, String onAir) {
    }

    /** Whose voice is in a take that is asked about, and where it is heard. */
    public Heard heard(Person viewer, long takeId) {
        Take take = erasing.asked(viewer, takeId);
        long episodeId = take.episodeId();
        return new Heard(take, voices.ofEpisode(episodeId).getOrDefault(takeId, List.of()).stream().map(Voices.Voice::name).distinct().toList(),
                !voices.withoutVoice(episodeId, Set.of(takeId)).isEmpty(),
                placed.onPage(episodeId).containsKey(takeId),
                handIns.ofEpisode(viewer, episodeId).stream().filter(handIn -> handIns.holds(handIn.id(), takeId)).map(HandIn::number).sorted().toList(),
                airDesk.onAir(episodeId).filter(live -> handIns.holds(live.handInId(), takeId)).map(Publication::title).orElse(null));
    }

    /** As {@link #erase(Person, long)}, for somebody who has been let through. */
    void erase(Person by, Take take) throws IOException {
        if (take.state() == Take.State.ERASED || take.origin() == Take.Origin.SHELF) {
            return;
        }
        List<String> files = new ArrayList<>();
        transaction.executeWithoutResult(status -> {
            files.addAll(withdraw(take));
            files.addAll(erasing.empty(by, take));
            placed.erase(by, take.episodeId(), take.id());
            journal.write(ErasedJournal.Kind.TAKE, take.id(), files);
            log.note(by.schoolId(), SecurityLog.Kind.ERASED, by.id(), null, "take " + take.id() + " of episode " + take.episodeId());
        });
        erasedFiles.delete(files);
        erasedFiles.deleteWork(Scratch.Owner.episode(take.episodeId()));
    }

    /**
     * Takes off air what holds a take, and has hand-ins that hold it made again when the surrounding transaction has ended; returns the keys of
     * their files.
     */
    List<String> withdraw(Take take) {
        // one lock with publishing: whoever comes second sees what the first did
        access.hold(take.episodeId());
        List<String> files = new ArrayList<>(handIns.makeAgainWithout(take.episodeId(), take.id()));
        airDesk.takeOff(take.episodeId(), live -> handIns.holds(live.handInId(), take.id())).ifPresent(files::add);
        return files;
    }

    /** What was spoken in a note that is taken back goes with it. */
    @EventListener
    public void noteGone(SpokenNoteGone gone) {
        erasing.ofNote(gone.takeId()).ifPresent(take -> {
            List<String> files = erasing.empty(gone.by(), take);
            journal.write(ErasedJournal.Kind.TAKE, take.id(), files);
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public void afterCommit() {
                    erasedFiles.deleteOrLeaveToTheJournal(files, Scratch.Owner.episode(take.episodeId()));
                }
            });
        });
    }

    /** Erases a take again that a restored backup has brought back. */
    void again(long takeId) throws IOException {
        Optional<Person> teacher = erasing.teacherOf(takeId);
        if (teacher.isPresent() && erasing.ofNote(takeId).isPresent()) {
            transaction.executeWithoutResult(status -> {
                notes.forgetSpoken(takeId);
                noteGone(new SpokenNoteGone(takeId, teacher.get()));
            });
        } else if (teacher.isPresent()) {
            erase(teacher.get(), takeId);
        }
    }
}

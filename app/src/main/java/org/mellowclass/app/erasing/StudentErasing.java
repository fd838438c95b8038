package org.mellowclass.app.erasing;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

import org.mellowclass.app.bench.ForgottenNames;
import org.mellowclass.app.erasing.StudentMapper.Child;
import org.mellowclass.app.erasing.StudentMapper.Spoken;
import org.mellowclass.app.erasing.StudentMapper.Words;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.SignedIn;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.sounds.SilencedSide;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Deletes a student at once: every take in which they speak, with all that was made of it and what is on air of it; their notes, consents,
 * sign-ins and names. What the others of the crew said stays where it can be told apart, in takes and on sides of their own, and so do their
 * edits.
 */
@Service
public class StudentErasing {

    private final StudentMapper students;
    private final TakeRows takes;
    private final Erasures erasures;
    private final SilencedSide silencedSide;
    private final ErasedFiles erasedFiles;
    private final ForgottenNames names;
    private final HandIns handIns;
    private final Access access;
    private final SchoolOffice office;
    private final SignedIn signedIn;
    private final ErasedJournal journal;
    private final SecurityLog log;
    private final TransactionTemplate transaction;

    StudentErasing(StudentMapper students, TakeRows takes, Erasures erasures, SilencedSide silencedSide, ErasedFiles erasedFiles, ForgottenNames names, HandIns handIns, Access access, SchoolOffice office,
                   SignedIn signedIn, ErasedJournal journal, SecurityLog log, TransactionTemplate transaction) {
        this.students = students;
        this.takes = takes;
        this.erasures = erasures;
        this.silencedSide = silencedSide;
        this.erasedFiles = erasedFiles;
        this.names = names;
        this.handIns = handIns;
        this.access = access;
        this.office = office;
        this.signedIn = signedIn;
        this.journal = journal;
        this.log = log;
        this.transaction = transaction;
    }

    /**
     * What goes with a student.
     *
     * @param alone     takes in which nobody else speaks
     * @param ownSides  takes of which their side goes silent and the other one stays
     * @param mixed     takes in which others speak on the same side: one voice cannot be taken out of them
     * @param notes     how many notes they wrote
     */
    public record Going(long studentId, String name, List<Spoken> alone, List<Spoken> ownSides, List<Spoken> mixed, int notes) {
    }

    /** What goes with a student of a class that the viewer teaches. @throws Refusal unless it is their home class */
    public Going going(Person viewer, long classId, long studentId) {
        Child child = child(viewer, classId, studentId);
        List<Spoken> spoken = students.spoken(studentId);
        return new Going(studentId, child.name(), spoken.stream().filter(take -> take.others() == null).toList(),
                spoken.stream().filter(StudentErasing::hasOwnSide).toList(),
                spoken.stream().filter(take -> take.others() != null && !hasOwnSide(take)).toList(), students.notes(studentId));
    }

    private static boolean hasOwnSide(Spoken take) {
        return take.others() != null && take.ownSide() != null;
    }

    /** Deletes a student of a class that the viewer teaches, everywhere. @throws Refusal unless it is their home class */
    public void erase(Person viewer, long classId, long studentId) throws IOException {
        erase(viewer, child(viewer, classId, studentId));
    }

    private Child child(Person viewer, long classId, long studentId) {
        access.taughtClass(viewer, classId);
        Child child = students.ofClass(classId, studentId).orElseThrow(NotFound::new);
        if (!child.home()) {
            throw Refusal.conflict("roster.DELETE_AT_HOME", child.name());
        }
        return child;
    }

    /** Deletes a student again whom a restored backup has brought back, or whose deleting was killed. */
    void again(long studentId) throws IOException {
        Optional<Child> child = students.find(studentId);
        if (child.isPresent()) {
            erase(office.lead(child.get().schoolId()), child.get());
        }
    }

    /** For somebody who has been let through. */
    void erase(Person by, Child child) throws IOException {
        // written first: one that is killed half-way is done to its end at the next start
        journal.write(ErasedJournal.Kind.STUDENT, child.id(), List.of());
        signedIn.end(child.id());
        boolean done = false;
        while (!done) {
            for (Spoken spoken : students.spoken(child.id())) {
                Take take = takes.find(spoken.id()).orElseThrow();
                if (hasOwnSide(spoken)) {
                    silence(child, take, spoken.ownSide());
                } else {
                    erasures.erase(by, take);
                }
            }
            List<String> parts = students.filesOnTheWay(child.id());
            done = Boolean.TRUE.equals(transaction.execute(status -> delete(by, child)));
            erasedFiles.deleteParts(parts);
        }
    }

    private void silence(Child child, Take take, Voices.Side side) throws IOException {
        SilencedSide.Made made = silencedSide.make(take, side);
        List<String> files = new ArrayList<>();
        transaction.executeWithoutResult(status -> {
            files.addAll(erasures.withdraw(take));
            files.addAll(silencedSide.replace(take, made));
            students.deleteVoice(take.id(), child.id());
            journal.write(ErasedJournal.Kind.STUDENT, child.id(), files);
        });
        erasedFiles.delete(files);
        erasedFiles.deleteWork(Scratch.Owner.episode(take.episodeId()));
    }

    /** False if there is a take that came in between. */
    private boolean delete(Person by, Child child) {
        List<Long> episodes = students.episodes(child.id());
        episodes.forEach(access::hold);
        if (!students.spoken(child.id()).isEmpty()) {
            return false;
        }
        episodes.forEach(episodeId -> forgetName(episodeId, child));
        long nobody = students.nobody(child.schoolId()).orElseGet(() -> {
            students.addNobody(child.schoolId());
            return students.nobody(child.schoolId()).orElseThrow();
        });
        students.delete(child.id(), nobody);
        log.note(by.schoolId(), SecurityLog.Kind.STUDENT_DELETED, by.id(), null, "student " + child.id());
        return true;
    }

    private void forgetName(long episodeId, Child child) {
        ErasedName name = new ErasedName(child.name(), child.onAirName(), students.crewWithout(episodeId, child.id()));
        Map<String, String> retold = names.forget(episodeId, name::inName);
        handIns.retell(episodeId, retold);
        names.drop(retold.keySet());
        for (Words words : students.words(episodeId)) {
            String without = switch (words.kept()) {
                case TAKE, TRACK -> name.inName(words.words());
                case NOTE, HOW, ANSWER, MARK, SUMMARY, SENTENCE, UNHEARD, LET_THROUGH, AIR_TITLE, AIR_DESCRIPTION -> name.inSentence(words.words());
            };
            if (!without.equals(words.words())) {
                students.set(words, without);
            }
        }
    }
}

package org.mellowclass.app.erasing;

import java.io.IOException;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.app.bench.ForgottenNames;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.SignedIn;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.store.NamedSounds;
import org.mellowclass.app.store.Scratch;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Deletes classes and schools that nobody has taken back: every row and every file. Students who are in no other class go with their class. */
@Service
class ClassErasing {

    private final ClassMapper classes;
    private final StudentErasing students;
    private final ForgottenNames timelines;
    private final List<NamedSounds> named;
    private final ErasedFiles erasedFiles;
    private final ErasedJournal journal;
    private final SchoolOffice office;
    private final SignedIn signedIn;
    private final SecurityLog log;
    private final TransactionTemplate transaction;

    ClassErasing(ClassMapper classes, StudentErasing students, ForgottenNames timelines, List<NamedSounds> named, ErasedFiles erasedFiles,
                 ErasedJournal journal, SchoolOffice office, SignedIn signedIn, SecurityLog log, TransactionTemplate transaction) {
        this.classes = classes;
        this.students = students;
        this.timelines = timelines;
        this.named = named;
        this.erasedFiles = erasedFiles;
        this.journal = journal;
        this.office = office;
        this.signedIn = signedIn;
        this.log = log;
        this.transaction = transaction;
    }

    /** Deletes a class; one that is gone already is no error. */
    void erase(long classId) throws IOException {
        Set<Long> people = classes.people(classId);
        Set<String> files = new HashSet<>();
        List<Long> episodes = classes.episodeIds(classId);
        List<String> parts = classes.pathsOnTheWay(classId);
        named.forEach(feature -> files.addAll(feature.keysOfClass(classId)));
        transaction.executeWithoutResult(status -> {
            Optional<Long> school = classes.lockedSchoolOf(classId).stream().findFirst();
            if (school.isPresent()) {
                journal.write(ErasedJournal.Kind.CLASS, classId, files);
                Set<String> hashes = classes.timelines(classId);
                classes.delete(classId);
                timelines.drop(hashes);
                log.note(school.get(), SecurityLog.Kind.CLASS_DELETED, null, null, "class " + classId);
            }
        });
        erasedFiles.delete(files);
        erasedFiles.deleteParts(parts);
        erasedFiles.deleteWork(Scratch.Owner.shelf(classId));
        for (long episodeId : episodes) {
            erasedFiles.deleteWork(Scratch.Owner.episode(episodeId));
        }
        for (long personId : people) {
            if (classes.inNoClass(personId)) {
                students.again(personId);
            }
        }
    }

    /** Deletes a school; one that is gone already is no error. */
    void eraseSchool(long schoolId) throws IOException {
        if (classes.school(schoolId).isEmpty()) {
            return;
        }
        journal.write(ErasedJournal.Kind.SCHOOL, schoolId, List.of());
        office.everybody(schoolId).forEach(signedIn::end);
        for (long classId : classes.classes(schoolId)) {
            erase(classId);
        }
        transaction.executeWithoutResult(status -> classes.deleteEmpty(schoolId));
    }
}

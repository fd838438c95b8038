package org.mellowclass.app.practice;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.util.Optional;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.brief.Brief;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.incoming.BringingIn;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Frames;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** An episode of their own for every student, to spoil and to start again: with the shipped voice, seen by nobody else, never handed in. */
@Service
public class Practice {

    private static final String VOICE = "/static/sound/practice-voice.flac";
    private static final int CODE_LENGTH = 16;

    private final PracticeMapper practice;
    private final SchoolOffice office;
    private final Briefs briefs;
    private final BringingIn bringingIn;
    private final Bench bench;
    private final TransactionTemplate transaction;

    Practice(PracticeMapper practice, SchoolOffice office, Briefs briefs, BringingIn bringingIn, Bench bench, TransactionTemplate transaction) {
        this.practice = practice;
        this.office = office;
        this.briefs = briefs;
        this.bringingIn = bringingIn;
        this.bench = bench;
        this.transaction = transaction;
    }

    /** A student's practice episode; it is made if there is none yet. */
    public long episodeOf(Person student) throws IOException {
        if (student.isTeacher()) {
            throw new NotFound();
        }
        Optional<Long> known = practice.episodeOf(student.id());
        if (known.isPresent()) {
            return known.get();
        }
        long[] made = transaction.execute(status -> {
            practice.hold(student.id());
            Optional<Long> meanwhile = practice.episodeOf(student.id());
            return meanwhile.isPresent() ? new long[] {meanwhile.get(), 0} : new long[] {office.addPracticeCrew(classOf(student.schoolId()), student), 1};
        });
        if (made[1] == 1) {
            bringVoiceIn(student, made[0]);
        }
        return made[0];
    }

    private void bringVoiceIn(Person student, long episodeId) throws IOException {
        bringingIn.bringIn(student, episodeId, "practice voice.flac", "Practice voice", target -> {
            try (InputStream voice = Practice.class.getResourceAsStream(VOICE)) {
                Files.write(target, voice.readAllBytes());
            }
        });
    }

    private long classOf(long schoolId) {
        practice.holdSchool(schoolId);
        return practice.classOf(schoolId).orElseGet(() -> {
            long classId = office.addPracticeClass(schoolId, RandomKey.next().substring(0, CODE_LENGTH));
            briefs.add(Brief.first(classId, "Practice", "", Frames.ofSeconds(1), Frames.ofSeconds(600), null));
            return classId;
        });
    }

    /** The page is as it was when the voice had landed; undo brings back what was spoiled. A voice that never came is brought in now. */
    public void startAgain(Person student) throws IOException {
        long episodeId = episodeOf(student);
        Optional<Long> landed = practice.firstLaid(episodeId);
        if (landed.isPresent()) {
            bench.goBack(student, episodeId, bench.head(student, episodeId).seq(), "again-" + RandomKey.next(), landed.get());
        } else if (!practice.hasTakes(episodeId)) {
            bringVoiceIn(student, episodeId);
        }
    }
}

package org.mellowclass.app.testing;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import java.util.zip.CRC32;

import org.awaitility.Awaitility;
import org.mellowclass.app.brief.Brief;
import org.mellowclass.app.brief.BriefDraft;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.brief.WholeBrief;
import org.mellowclass.app.incoming.BringingIn;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.review.Listening;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.shelf.ShelfSound;
import org.mellowclass.app.sounds.Sound;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.boot.test.context.TestComponent;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Builds a school of its own for every test, through the services that people use. */
@TestComponent
public class Schools {

    private static final Duration PATIENCE = Duration.ofSeconds(60);

    private final SchoolOffice office;
    private final Briefs briefs;
    private final BringingIn bringingIn;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final HandIns handIns;
    private final Listening listening;
    private final Shelf shelf;
    private final Recording recording;
    private final Voices voices;
    private final Jobs jobs;
    private final JdbcClient database;

    Schools(SchoolOffice office, Briefs briefs, BringingIn bringingIn, TakeShelf takes, TakeSounds sounds, HandIns handIns, Listening listening, Shelf shelf, Recording recording, Voices voices, Jobs jobs, JdbcClient database) {
        this.office = office;
        this.briefs = briefs;
        this.bringingIn = bringingIn;
        this.takes = takes;
        this.sounds = sounds;
        this.handIns = handIns;
        this.listening = listening;
        this.shelf = shelf;
        this.recording = recording;
        this.voices = voices;
        this.jobs = jobs;
        this.database = database;
    }

    /** Has an episode's page measured and read now, as it is some seconds after its last edit. */
    public void readPage(long episodeId) {
        jobs.ask("finish", episodeId, "finishes");
    }

    /** A teacher clears a hand-in that was heard elsewhere. */
    public void clear(Person teacher, long handInId) {
        handIns.decide(teacher, handInId, HandIn.Decision.CLEARED, "");
        listening.letUnheardThrough(teacher, handInId, "We heard it in class.");
    }

    /**
     * A school with a class of two crews, and another class with a crew and a teacher of its own.
     *
     * @param student of the first crew, whose episode is {@code episodeId}
     * @param partner another student of that crew
     * @param neighbour a student of the class's other crew
     * @param stranger a student of the other class
     */
    public record School(Person teacher, String teacherEmail, Person student, Person partner, Person neighbour, Person otherTeacher,
                         Person stranger, long classId, String classCode, long episodeId, long otherClassId,
                         long otherEpisodeId) {
    }

    public static final String PASSWORD = "a long enough password";
    public static final String PASSPHRASE = "amber oar";
    public static final String NEIGHBOURS_PASSPHRASE = "copper bell";

    public School build() {
        String unique = RandomKey.next().substring(0, 8);
        long school = office.addSchool("Test School " + unique, "Europe/London");
        String email = "teacher-" + unique + "@school.example";
        Person teacher = office.addTeacher(school, "Ms Reed", email, PASSWORD);
        Person otherTeacher = office.addTeacher(school, "Mr Sedge", "other-" + email, PASSWORD);
        String code = "T" + unique.toUpperCase();
        long classId = office.addClass(teacher, "7 Test", code);
        long otherClassId = office.addClass(otherTeacher, "9 Test", "O" + unique.toUpperCase());
        for (long id : List.of(classId, otherClassId)) {
            briefs.add(Brief.first(id, "Test Tales", "Stories.", Frames.ofSeconds(2), Frames.ofSeconds(60),
                    LocalDate.of(2026, 12, 4)));
        }
        Person student = office.addStudent(school, "Noor", PASSPHRASE);
        Person partner = office.addStudent(school, "Tess", PASSPHRASE);
        Person neighbour = office.addStudent(school, "Ravi", NEIGHBOURS_PASSPHRASE);
        Person stranger = office.addStudent(school, "Isla", PASSPHRASE);
        long episode = office.addCrew(classId, "Kingfisher", "Eels", List.of(student, partner));
        office.addCrew(classId, "Mudlark", "Mud", List.of(neighbour));
        long otherEpisode = office.addCrew(otherClassId, "Ferry", "Tickets", List.of(stranger));
        for (Person heard : List.of(student, partner, neighbour)) {
            consent(teacher, heard, Consent.PUBLIC);
        }
        return new School(teacher, email, student, partner, neighbour, otherTeacher, stranger, classId, code, episode, otherClassId,
                otherEpisode);
    }

    /** What was agreed for a student. */
    public void consent(Person teacher, Person student, Consent extent) {
        database.sql("INSERT INTO consent (person_id, extent, recorded_by, recorded_at) VALUES (?, ?, ?, now(6))").params(student.id(), extent.name(), teacher.id()).update();
    }

    /** Brings sound in as a take of the school's first episode, and waits until it is ready on its track; the student speaks in it. */
    public long readyTake(School school, Signal signal, String track) throws IOException {
        long take = bringingIn.bringIn(school.student, school.episodeId, "sound.wav", track, target -> write(signal, target));
        awaitMeasured(school, take);
        voices.name(school.student, school.episodeId, take, Set.of(new Voices.Speaker.Student(school.student.id())), false);
        return take;
    }

    /** A sound on the first class's shelf, ready. */
    public long shelfSound(School school, String name, Signal signal) throws IOException {
        long id = shelf.add(school.teacher, school.classId, new Shelf.About(name, ShelfSound.Kind.MUSIC, "Ms Reed", "CC0 1.0", "made here", ""),
                target -> write(signal, target));
        await(() -> shelf.sound(school.teacher, id).ready());
        return id;
    }

    /** The first class's brief as its page would send it, with its parts and lines. */
    public BriefDraft draft(School school) {
        WholeBrief whole = briefs.whole(school.classId);
        Brief brief = whole.brief();
        return new BriefDraft(brief.version(), brief.project(), brief.story(), brief.loudnessLufs(), brief.ceilingDbtp(), "0:02", "1:00", "",
                brief.outputFormat(), brief.recipe(), brief.actions(),
                whole.parts().stream().map(part -> new BriefDraft.PartDraft(part.id(), part.name(), "0:05", "0:20")).toList(),
                whole.lines().stream().map(line -> new BriefDraft.LineDraft(line.id(), -1, line.words(), line.cue())).toList(),
                List.of(), List.of(), true);
    }

    private static <T> T last(List<T> rows) {
        return rows.get(rows.size() - 1);
    }

    private static <T> List<T> with(List<T> rows, T row) {
        return Stream.concat(rows.stream(), Stream.of(row)).toList();
    }

    /** A part in the first class's brief, behind the others. */
    public long part(School school, String name) {
        BriefDraft d = draft(school);
        briefs.change(school.teacher, school.classId, new BriefDraft(d.version(), d.project(), d.story(), d.loudnessLufs(), d.ceilingDbtp(),
                d.shortest(), d.longest(), d.dueDay(), d.outputFormat(), d.recipe(), d.actions(),
                with(d.parts(), new BriefDraft.PartDraft(0, name, "0:05", "0:20")), d.lines(), d.rubric(), d.starter(), true));
        return last(briefs.whole(school.classId).parts()).id();
    }

    /** A line in the first class's script, behind the others. */
    public long line(School school, String words) {
        BriefDraft d = draft(school);
        briefs.change(school.teacher, school.classId, new BriefDraft(d.version(), d.project(), d.story(), d.loudnessLufs(), d.ceilingDbtp(),
                d.shortest(), d.longest(), d.dueDay(), d.outputFormat(), d.recipe(), d.actions(), d.parts(),
                with(d.lines(), new BriefDraft.LineDraft(0, -1, words, "")), d.rubric(), d.starter(), true));
        return last(briefs.whole(school.classId).lines()).id();
    }

    /** A second of tone recorded for a line, ready. */
    public long takeOfLine(School school, long lineId) {
        return recorded(school, new Recording.Start("Noor", Frames.RATE, 0, null, lineId, Set.of(), Set.of(), null, null, null), Signal.sine(1, 400, -12, 1));
    }

    /** A recording at 48 kHz by the first episode's student, ready. */
    public long recorded(School school, Recording.Start start, Signal signal) {
        return finish(school, recording.begin(school.student, school.episodeId, start), signal);
    }

    /** Sends all of a recording that has begun in one chunk a second, and waits until the take is ready. */
    public long finish(School school, Recording.Begun begun, Signal signal) {
        send(begun, signal);
        awaitMeasured(school, begun.takeId());
        return begun.takeId();
    }

    /** Sends all of a recording at 48 kHz that has begun in one chunk a second, and ends it. */
    public void send(Recording.Begun begun, Signal signal) {
        float[] samples = signal.samples()[0];
        int chunks = 0;
        for (int from = 0; from < samples.length; from += Frames.RATE) {
            float[] second = Arrays.copyOfRange(samples, from, Math.min(samples.length, from + Frames.RATE));
            byte[] pcm = Pcm16.interleaved(new float[][] {second}, second.length);
            CRC32 crc = new CRC32();
            crc.update(pcm);
            recording.chunk(begun.uploadKey(), chunks++, from, crc.getValue(), pcm, false);
        }
        recording.end(begun.uploadKey(), chunks, samples.length, false);
    }

    /** The sound of a take as it is. */
    public Sound sound(School school, long take) {
        return sounds.ofEpisode(school.episodeId).stream().filter(sound -> sound.takeId() == take && sound.treatment().equals(Treatment.NONE))
                .findFirst().orElseThrow();
    }

    private void awaitMeasured(School school, long take) {
        await(() -> takes.ready(school.episodeId).containsKey(take) && sounds.findings(take).isPresent());
    }

    /** Hands the first episode in, and waits for its mixdown. */
    public HandIn readyHandIn(School school) {
        long id = handIns.handIn(school.student, school.episodeId).id();
        await(() -> handIns.find(school.student, id).ready());
        return handIns.find(school.student, id);
    }

    /** Five seconds that stand for speech: a tone with a pause in it. */
    public static Signal speech() {
        return Signal.concat(Signal.sine(1, 300, -18, 2), Signal.silence(1, 0.5), Signal.sine(1, 500, -20, 2.5));
    }

    public static Path write(Signal signal, Path file) throws IOException {
        Files.deleteIfExists(file);
        try (WavWriter writer = WavWriter.create(file, signal.channels(), signal.rate(), SampleFormat.FLOAT_32)) {
            SampleSink.drain(signal.stream(), writer);
        }
        return file;
    }

    public static void await(BooleanSupplier done) {
        Awaitility.await().atMost(PATIENCE).pollInterval(Duration.ofMillis(50)).until(done::getAsBoolean);
    }
}

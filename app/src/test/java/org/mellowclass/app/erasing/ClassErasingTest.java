package org.mellowclass.app.erasing;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.keeping.Keeping;
import org.mellowclass.app.lineup.LineUps;
import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Invitations;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.MarginNote;
import org.mellowclass.app.review.MarginNotes;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

@AppTest
class ClassErasingTest {

    /** Tables that hold nothing of a school: the libraries' own, and what passes by itself within minutes. */
    private static final Set<String> OF_NO_SCHOOL = Set.of("flyway_schema_history", "scheduled_tasks", "job_progress", "event", "spring_session",
            "spring_session_attributes", "store_identity");

    @Autowired
    private ErasedAgain erased;
    @Autowired
    private ErasedJournal journal;
    @Autowired
    private Keeping keeping;
    @Autowired
    private Erasing erasing;
    @Autowired
    private Voices voices;
    @Autowired
    private Bench bench;
    @Autowired
    private Recording recording;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private LineUps lineUps;
    @Autowired
    private Shelf shelf;
    @Autowired
    private Outbox outbox;
    @Autowired
    private Invitations invitations;
    @Autowired
    private AirDesk airDesk;
    @Autowired
    private Schools schools;
    @Autowired
    private MellowProperties properties;
    @Autowired
    private JdbcClient database;

    /** A school with something in every table. */
    private Schools.School full() throws IOException {
        Schools.School school = schools.build();
        long take = schools.readyTake(school, Signal.noise(1, -12, 6, 7), "Noor");
        long second = schools.readyTake(school, Signal.noise(1, -12, 6, 7), "Tess");
        lineUps.ask(school.student(), school.episodeId(), List.of(take, second));
        Schools.await(() -> lineUps.ofEpisode(school.student(), school.episodeId()).get(0).offsetFrames() != null);
        schools.takeOfLine(school, schools.line(school, "Hello."));
        HandIn handIn = schools.readyHandIn(school);
        notes.write(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "Lovely.", 0, 48_000));
        schools.clear(school.teacher(), handIn.id());
        airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.");
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        voices.addGuest(school.student(), school.episodeId(), "Mr Pellow", Consent.PUBLIC);
        erasing.ask(school.student(), second);
        recording.flag(recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", 48_000)).uploadKey(), 100);
        long sound = schools.shelfSound(school, "Bell", Signal.sine(2, 500, -20, 1));
        shelf.addExcerpt(school.teacher(), sound, "start", OptionalLong.of(0), OptionalLong.of(100));
        invitations.invite(school.teacher(), school.classId(), "colleague@school.example");
        outbox.send(school.teacher(), "colleague@school.example", "Hello", "Hello.");
        long part = schools.part(school, "Ending");
        long crew = database.sql("SELECT crew_id FROM episode WHERE id = ?").param(school.episodeId()).query(Long.class).single();
        row("part_owner (episode_id, part_id, person_id) VALUES (?, ?, ?)", school.episodeId(), part, school.student().id());
        row("brief_clip (class_id, position, track_name, sound_id, start_frame, gain_db) VALUES (?, 0, 'Music', ?, 0, 0)", school.classId(), sound);
        long note = database.sql("SELECT max(id) FROM margin_note WHERE hand_in_id = ?").param(handIn.id()).query(Long.class).single();
        row("note_reply (note_id, author_id, words, written_at) VALUES (?, ?, 'We will.', now(6))", note, school.student().id());
        row("marking (hand_in_id, teacher_id, summary, saved_at) VALUES (?, ?, '', now(6))", handIn.id(), school.teacher().id());
        row("mark (hand_in_id, student_id, position, criterion, most_points, points, sentence) VALUES (?, ?, 0, 'Clear', 5, 4, '')", handIn.id(), school.student().id());
        row("mark_place (hand_in_id, position, start_frame, end_frame) VALUES (?, 0, 0, 48000)", handIn.id());
        row("early_listener (episode_id, crew_id, until_at) VALUES (?, ?, now(6))", school.episodeId(), crew);
        row("taken_back (hand_in_id, title, correction, by_id, at) VALUES (?, 'Eels', FALSE, ?, now(6))", handIn.id(), school.teacher().id());
        row("heard_span (hand_in_id, person_id, client_id, start_frame, end_frame, heard_at) VALUES (?, ?, 'client-heard', 0, 100, now(6))", handIn.id(), school.student().id());
        row("air_rule (class_id, must_be_good, lead_only) VALUES (?, 'LOUDNESS', false)", school.classId());
        row("let_through (hand_in_id, kind, reason, person_id, let_at) VALUES (?, 'HUM', 'It is the river.', ?, now(3))", handIn.id(), school.teacher().id());
        row("class_recipe (class_id, name, advice, recipe, created_at) VALUES (?, 'Hall', 'For the hall.', 'low-cut:80', now(3))", school.classId());
        row("brief_criterion (class_id, position, name, most_points) VALUES (?, 0, 'Clear', 5)", school.classId());
        row("finish (episode_id, revision_seq, gain_millidb, ceiling_millidbtp, measured_at) VALUES (?, 1, 0, -1000, now(6)) ON DUPLICATE KEY UPDATE gain_millidb = 0", school.episodeId());
        row("named_version (episode_id, revision_seq, name) VALUES (?, 1, 'first try')", school.episodeId());
        row("returned_file (take_id, original_key, returned_at) VALUES (?, ?, now(6))", take, "c".repeat(32));
        row("presence (episode_id, person_id, frame, seen_at) VALUES (?, ?, 0, now(6))", school.episodeId(), school.student().id());
        row("recording_round (class_id, crew_id, started_at) VALUES (?, ?, now(6))", school.classId(), crew);
        row("join_request (class_id, person_id, asked_by, asked_at) VALUES (?, ?, ?, now(6))", school.otherClassId(), school.student().id(), school.otherTeacher().id());
        row("known_laptop (laptop, person_id, last_at) VALUES (?, ?, now(6))", "a".repeat(64), school.student().id());
        row("password_reset (key_hash, person_id, asked_at) VALUES (?, ?, now(6))", Long.toString(school.teacher().id()), school.teacher().id());
        row("incoming_file (upload_key, episode_id, author_id, file_name, track_name, placing, bytes, arriving, begun_at) VALUES (?, ?, ?, 'a.wav', 'Noor', 'LIST', 10, '', now(6))",
                "k" + school.episodeId(), school.episodeId(), school.student().id());
        row("former_take (id, take_id, treatment) VALUES (?, ?, '')", -take, take);
        row("take_chunk (take_id, number, first_frame, frames, pcm) VALUES (?, 99, 0, 1, '')", take);
        return school;
    }

    private void row(String values, Object... parameters) {
        database.sql("INSERT INTO " + values).params(parameters).update();
    }

    private Map<String, Long> rows() {
        Map<String, Long> rows = new HashMap<>();
        for (String table : database.sql("SELECT table_name FROM information_schema.tables WHERE table_schema = database()").query(String.class).list()) {
            // finishes of other schools are measured meanwhile; those of an episode go with its row
            if (!OF_NO_SCHOOL.contains(table.toLowerCase()) && !table.equalsIgnoreCase("finish")) {
                rows.put(table, database.sql("SELECT count(*) FROM " + table).query(Long.class).single());
            }
        }
        return rows;
    }

    private Set<Path> files() throws IOException {
        try (Stream<Path> files = Files.walk(properties.folder())) {
            return files.filter(Files::isRegularFile).filter(file -> !file.endsWith("erased")).collect(Collectors.toSet());
        }
    }

    private void twoWeeksLater(String table, long id) {
        database.sql("UPDATE " + table + " SET gone_at = gone_at - INTERVAL 15 DAY WHERE id = ?").param(id).update();
        erased.lookAtWhatGoes();
    }

    @Test
    void a_school_that_nobody_takes_back_leaves_no_row_and_no_file() throws IOException {
        schools.build();
        Map<String, Long> before = rows();
        Set<Path> filesBefore = files();
        Schools.School school = full();
        Map<String, Long> filled = rows();
        assertThat(filled).as("a table that this test does not fill is one that deleting may have forgotten: fill it, or say that it is of no school")
                .allSatisfy((table, count) -> assertThat(count).as(table).isGreaterThan(table.equals("first_start") ? 0 : before.get(table)));
        keeping.letSchoolGo(school.teacher());
        twoWeeksLater("school", school.teacher().schoolId());
        assertThat(rows()).isEqualTo(before);
        Set<Path> left = new HashSet<>(files());
        left.removeAll(filesBefore);
        assertThat(left).isEmpty();
    }

    @Test
    void a_class_goes_with_those_who_are_in_no_other_and_what_others_have_stays() throws IOException {
        Schools.School school = full();
        row("class_student (class_id, person_id, home) VALUES (?, ?, FALSE)", school.otherClassId(), school.partner().id());
        keeping.letGo(school.teacher(), school.classId());
        twoWeeksLater("school_class", school.classId());
        assertThat(names(school)).as("of three, one was in another class too").containsExactlyInAnyOrder("Ms Reed", "Mr Sedge", "Isla", "Tess", "Somebody who has left");
        assertThat(bench.head(school.stranger(), school.otherEpisodeId()).timeline().tracks()).isEmpty();
        assertThat(count("school_class WHERE id = ?", school.classId())).isZero();
    }

    @Test
    void a_class_that_a_restored_backup_brings_back_goes_again() throws IOException {
        Schools.School school = full();
        journal.write(ErasedJournal.Kind.CLASS, school.classId(), List.of());
        erased.again();
        assertThat(count("school_class WHERE id = ?", school.classId())).isZero();
    }

    private List<String> names(Schools.School school) {
        return database.sql("SELECT name FROM person WHERE school_id = ?").param(school.teacher().schoolId()).query(String.class).list();
    }

    private long count(String where, Object... parameters) {
        return database.sql("SELECT count(*) FROM " + where).params(parameters).query(Long.class).single();
    }
}

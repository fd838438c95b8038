package org.mellowclass.app.erasing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.bench.Mending;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.incoming.BringingIn;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SignIn;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.review.Listening;
import org.mellowclass.app.review.MarginNote;
import org.mellowclass.app.review.MarginNotes;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.AddFlag;
import org.mellowclass.media.SoundDecoder;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

@AppTest
class StudentErasingTest {

    /** Nobody else in the tests' database has it. */
    private final String unique = RandomKey.next().substring(0, 10);
    private final String surname = "Quill" + unique;
    private final String fullName = "Noor " + surname;
    private final String onAir = "Noorabella" + unique;

    @TempDir
    private Path folder;
    @Autowired
    private SoundDecoder decoder;
    @Autowired
    private Mending mending;
    @Autowired
    private StudentErasing erasing;
    @Autowired
    private Listening listening;
    @Autowired
    private ErasedAgain again;
    @Autowired
    private ErasedJournal journal;
    @Autowired
    private Erasing requests;
    @Autowired
    private Bench bench;
    @Autowired
    private BringingIn bringingIn;
    @Autowired
    private Voices voices;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private HandIns handIns;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private AirDesk airDesk;
    @Autowired
    private SignIn signIn;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient database;

    private Schools.School school;
    private Person child;

    @BeforeEach
    void build() {
        school = schools.build();
        child = school.student();
        database.sql("UPDATE person SET name = ?, on_air_name = ?, student_number = 'N-17' WHERE id = ?").params(fullName, onAir, child.id()).update();
    }

    private long spoken(String track, Speaker... speakers) throws IOException {
        long take = bringingIn.bringIn(child, school.episodeId(), fullName.toLowerCase() + " at sea.wav", track, target -> Schools.write(Signal.sine(1, 300, -20, 1), target));
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        voices.name(child, school.episodeId(), take, Set.of(speakers), false);
        return take;
    }

    @Test
    void everything_of_a_student_is_gone_and_what_the_others_said_stays() throws IOException {
        Speaker hers = new Speaker.Student(child.id());
        Speaker partners = new Speaker.Student(school.partner().id());
        long alone = spoken(fullName, hers);
        long others = spoken("Tess", partners);
        long both = spoken("Noor and Tess", hers, partners);
        Head head = bench.head(child, school.episodeId());
        bench.edit(child, school.episodeId(), head.seq(), "flag", new AddFlag(head.timeline().tracks().get(0).id(), 100, onAir + " laughs"));
        HandIn handIn = schools.readyHandIn(school);
        notes.write(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "Well told, " + fullName + ".", 0, Frames.RATE));
        schools.clear(school.teacher(), handIn.id());
        listening.letUnheardThrough(school.teacher(), handIn.id(), fullName + " read it to me.");
        for (String kind : List.of("LOUDNESS", "HUM")) {
            database.sql("INSERT INTO let_through (hand_in_id, kind, reason, person_id, let_at) VALUES (?, ?, ?, ?, now(3))").params(handIn.id(), kind, kind + ": it is " + onAir + "'s way.", school.teacher().id()).update();
        }
        airDesk.publish(school.teacher(), school.episodeId(), "Eels", "Told by " + fullName + ".");
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        voices.addGuest(child, school.episodeId(), "Mr Pellow", Consent.PUBLIC);
        requests.ask(child, both);
        assertThat(signIn.student(school.classCode(), fullName, Schools.PASSPHRASE, "0123456789abcdef0123456789abcdef")).isInstanceOf(SignIn.Result.Welcome.class);
        Path sound = sounds.sound(child, alone).getFile().toPath();

        StudentErasing.Going going = erasing.going(school.teacher(), school.classId(), child.id());
        assertThat(going.alone()).extracting(StudentMapper.Spoken::id).containsExactly(alone);
        assertThat(going.mixed()).singleElement().satisfies(take -> {
            assertThat(take.id()).isEqualTo(both);
            assertThat(take.others()).isEqualTo("Tess");
        });
        erasing.erase(school.teacher(), school.classId(), child.id());

        assertThat(sound).doesNotExist();
        assertThat(airDesk.onAir(school.episodeId())).isEmpty();
        assertThat(takes.ready(school.episodeId())).containsOnlyKeys(others);
        assertThat(sounds.sound(school.partner(), others).contentLength()).isPositive();
        head = bench.head(school.partner(), school.episodeId());
        assertThat(Bench.takesIn(head.timeline())).containsExactly(others);
        for (long seq = 1; seq <= head.seq(); seq++) {
            assertThat(bench.timeline(school.partner(), school.episodeId(), seq).tracks()).extracting(Track::name)
                    .doesNotHaveDuplicates().noneMatch(StudentErasingTest::namesHer);
            assertThat(bench.timeline(school.partner(), school.episodeId(), seq).flags()).noneMatch(flag -> namesHer(flag.name()));
        }
        assertThat(head.timeline().trackNamed("Somebody")).isPresent();
        Schools.await(() -> handIns.find(school.partner(), handIn.id()).ready());
        assertThat(signIn.student(school.classCode(), fullName, Schools.PASSPHRASE, "")).isInstanceOf(SignIn.Result.Wrong.class);
        assertThat(database.sql("SELECT count(*) FROM person WHERE id = ?").param(child.id()).query(Integer.class).single()).isZero();
        assertThat(columnsThatSay(surname, onAir)).isEmpty();
    }

    private static boolean namesHer(String text) {
        return text.contains("Noor") || text.contains("Quill");
    }

    /** Every column of every table in which one of the words stands. */
    private List<String> columnsThatSay(String... words) {
        List<String> found = new ArrayList<>();
        for (Map<String, Object> column : database.sql("""
                SELECT table_name, column_name FROM information_schema.columns WHERE table_schema = database()
                AND data_type IN ('varchar', 'char', 'text', 'mediumtext', 'longtext') AND generation_expression IS NULL
                """).query().listOfRows()) {
            String table = column.get("table_name").toString();
            String name = column.get("column_name").toString();
            for (String word : words) {
                if (database.sql("SELECT count(*) FROM " + table + " WHERE " + name + " LIKE ?").param("%" + word + "%").query(Integer.class).single() > 0) {
                    found.add(table + "." + name);
                }
            }
        }
        return found;
    }

    @Test
    void of_a_take_with_a_voice_on_each_side_the_other_one_stays_frame_by_frame() throws Exception {
        Signal two = Signal.of(Frames.RATE, Signal.concat(Signal.sine(1, 300, -12, 3), Signal.silence(1, 3)).samples()[0],
                Signal.concat(Signal.silence(1, 3), Signal.sine(1, 700, -12, 3)).samples()[0]);
        long take = bringingIn.bringIn(child, school.episodeId(), "two.wav", "Two", target -> Schools.write(two, target));
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take) && sounds.findings(take).isPresent());
        mending.mend(child, school.episodeId(), take, Speaker.of("person-" + child.id()), Speaker.of("person-" + school.partner().id()));
        HandIn handIn = schools.readyHandIn(school);
        Path before = sounds.sound(child, take).getFile().toPath();
        assertThat(erasing.going(school.teacher(), school.classId(), child.id()).ownSides()).extracting(StudentMapper.Spoken::id).containsExactly(take);
        erasing.erase(school.teacher(), school.classId(), child.id());
        assertThat(before).doesNotExist();
        Signal left = decoded(sounds.sound(school.partner(), take).getFile().toPath());
        assertThat(left.samples()[0]).isEqualTo(new float[left.samples()[0].length]);
        assertThat(left.samples()[1]).isEqualTo(decoded(Schools.write(two, folder.resolve("as-it-came.wav"))).samples()[1]);
        assertThat(voices.ofEpisode(school.episodeId()).get(take)).singleElement().satisfies(voice -> assertThat(voice.name()).isEqualTo("Tess"));
        Schools.await(() -> handIns.find(school.partner(), handIn.id()).ready());
        Signal heard = decoded(handIns.sound(school.partner(), handIn.id()).getFile().toPath());
        assertThat(power(heard, 700)).as("the partner").isGreaterThan(1000 * power(heard, 300));
    }

    private Signal decoded(Path file) throws Exception {
        try (SampleSource source = decoder.open(file, decoder.probe(file))) {
            return Signal.read(source);
        }
    }

    /** Of one frequency, by Goertzel's sum over the first channel. */
    private static double power(Signal signal, double hertz) {
        double re = 0;
        double im = 0;
        float[] samples = signal.samples()[0];
        for (int i = 0; i < samples.length; i++) {
            re += samples[i] * Math.cos(2 * Math.PI * hertz * i / Frames.RATE);
            im += samples[i] * Math.sin(2 * Math.PI * hertz * i / Frames.RATE);
        }
        return re * re + im * im;
    }

    @Test
    void a_take_of_which_nobody_has_said_who_speaks_goes_with_whoever_made_it() throws IOException {
        long unnamed = bringingIn.bringIn(child, school.episodeId(), "sound.wav", "Sea", target -> Schools.write(Signal.sine(1, 300, -20, 1), target));
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(unnamed));
        long music = bringingIn.bringIn(child, school.episodeId(), "sound.wav", "Sea", target -> Schools.write(Signal.sine(1, 300, -20, 1), target));
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(music));
        voices.name(child, school.episodeId(), music, Set.of(), true);
        erasing.erase(school.teacher(), school.classId(), child.id());
        assertThat(takes.ready(school.episodeId())).containsOnlyKeys(music);
    }

    @Test
    void a_student_whom_a_restored_backup_brings_back_goes_again() throws IOException {
        spoken("Noor", new Speaker.Student(child.id()));
        journal.write(ErasedJournal.Kind.STUDENT, child.id(), List.of());
        again.again();
        assertThat(database.sql("SELECT count(*) FROM person WHERE id = ?").param(child.id()).query(Integer.class).single()).isZero();
        assertThat(takes.ready(school.episodeId())).isEmpty();
    }

    @Test
    void an_id_that_was_erased_is_never_given_to_somebody_else_even_from_an_older_backup() {
        long before = database.sql("SELECT max(id) FROM person").query(Long.class).single();
        journal.write(ErasedJournal.Kind.STUDENT, before + 1000, List.of());
        again.afterPropertiesSet();
        assertThat(schools.build().student().id()).isGreaterThan(before + 1000);
    }

    @Test
    void only_a_teacher_of_the_home_class_deletes_a_student() {
        assertThatThrownBy(() -> erasing.erase(school.otherTeacher(), school.classId(), child.id())).isInstanceOf(NotFound.class);
        database.sql("INSERT INTO class_student (class_id, person_id, home) VALUES (?, ?, FALSE)").params(school.otherClassId(), child.id()).update();
        assertThatThrownBy(() -> erasing.erase(school.otherTeacher(), school.otherClassId(), child.id())).hasMessage("roster.DELETE_AT_HOME");
    }
}

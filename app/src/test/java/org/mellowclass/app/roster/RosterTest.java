package org.mellowclass.app.roster;

import static java.util.stream.Collectors.counting;
import static java.util.stream.Collectors.groupingBy;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.Map;

import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.brief.BriefDraft;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.people.SignIn;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class RosterTest {

    private static final String NO_LAPTOP = null;

    @Autowired
    private Roster roster;
    @Autowired
    private Crews crews;
    @Autowired
    private Classes classes;
    @Autowired
    private SignInCards cards;
    @Autowired
    private SignIn signIn;
    @Autowired
    private Access access;
    @Autowired
    private Briefs briefs;
    @Autowired
    private Bench bench;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private Schools schools;
    private Schools.School school;
    private long classId;

    @BeforeEach
    void newClass() {
        school = schools.build();
        classId = classes.add(school.teacher(), "8 Heron");
    }

    private void imported(String list) {
        roster.importList(school.teacher(), classId, list, RosterPlan.Answers.NONE, "");
    }

    private Student student(String name) {
        return roster.students(school.teacher(), classId).stream().filter(it -> it.name().equals(name)).findFirst().orElseThrow();
    }

    private SchoolClass schoolClass() {
        return access.taughtClass(school.teacher(), classId);
    }

    @Test
    void importing_a_list_makes_students_crews_and_consents_and_importing_it_again_doubles_nothing() {
        String list = "number,name,crew,consent\n901,Zoë Quill,Ferry,public\n902,Abe Moss,Ferry,school only\n903,Ina,,\n";
        imported(list);
        imported(list);
        assertThat(roster.students(school.teacher(), classId)).extracting(Student::name, Student::onAirName, Student::crewName, Student::consent)
                .containsExactly(tuple("Abe Moss", "Abe", "Ferry", Consent.SCHOOL),
                        tuple("Ina", "Ina", null, null),
                        tuple("Zoë Quill", "Zoë", "Ferry", Consent.PUBLIC));
        assertThat(crews.ofClass(school.teacher(), classId)).extracting(Crew::name).containsExactly("Ferry");
        assertThat(roster.consents(school.teacher(), classId, student("Zoë Quill").id())).singleElement()
                .satisfies(recorded -> assertThat(recorded.by()).isEqualTo("Ms Reed"));
    }

    @Test
    void looking_at_a_list_writes_nothing_and_a_row_in_doubt_stops_the_import() {
        assertThat(roster.plan(school.teacher(), classId, "Bo\nNoor\n", RosterPlan.Answers.NONE).toWrite()).isEqualTo(1);
        assertThat(roster.students(school.teacher(), classId)).isEmpty();
        assertThatThrownBy(() -> imported("Bo\nNoor\n")).isInstanceOf(Refusal.class).hasMessage("roster.ASK");
        assertThat(roster.students(school.teacher(), classId)).as("all or nothing").isEmpty();
        roster.importList(school.teacher(), classId, "Bo\nNoor\n", new RosterPlan.Answers(Map.of(2, school.student().id()), Map.of()), "");
        assertThat(student("Noor").id()).as("a student may be in several classes").isEqualTo(school.student().id());
        assertThat(access.episodesOf(school.student())).as("and stays in the other").extracting(it -> it.classId()).contains(school.classId());
    }

    @Test
    void nobody_takes_a_student_over_by_bringing_her_into_a_class_of_their_own() {
        Person other = school.otherTeacher();
        roster.importList(other, school.otherClassId(), "Noor,Ferry\n", new RosterPlan.Answers(Map.of(1, school.student().id()), Map.of()), "");
        assertThat(roster.students(other, school.otherClassId())).extracting(Student::name).doesNotContain("Noor");
        assertThat(roster.joinRequests(school.teacher(), school.classId())).singleElement()
                .isEqualTo(new JoinRequest(school.otherClassId(), "9 Test", school.student().id(), "Noor", "Mr Sedge"));
        assertThatThrownBy(() -> roster.answerJoin(other, school.otherClassId(), school.otherClassId(), school.student().id(), true)).isInstanceOf(NotFound.class);
        roster.answerJoin(school.teacher(), school.classId(), school.otherClassId(), school.student().id(), true);
        assertThat(roster.joinRequests(school.teacher(), school.classId())).isEmpty();
        Student joined = roster.students(other, school.otherClassId()).stream().filter(student -> student.name().equals("Noor")).findFirst().orElseThrow();
        assertThat(joined.home()).isFalse();
        assertThatThrownBy(() -> roster.newPassphrases(other, school.otherClassId(), List.of(joined.id()))).hasMessage("roster.HOME");
        roster.newPassphrases(school.teacher(), school.classId(), List.of(joined.id()));
        assertThat(roster.printable(other, school.otherClassId())).as("nobody else reads it").extracting(Student::name).doesNotContain("Noor");
        assertThat(roster.printable(school.teacher(), school.classId())).extracting(Student::name).contains("Noor");
        roster.leave(school.teacher(), school.classId(), joined.id());
        assertThat(roster.students(other, school.otherClassId())).filteredOn(student -> student.name().equals("Noor"))
                .as("the class that is left is her home").allMatch(Student::home).hasSize(1);
    }

    @Test
    void a_no_leaves_a_student_where_she_is() {
        roster.importList(school.otherTeacher(), school.otherClassId(), "Noor\n", new RosterPlan.Answers(Map.of(1, school.student().id()), Map.of()), "");
        roster.answerJoin(school.teacher(), school.classId(), school.otherClassId(), school.student().id(), false);
        assertThat(roster.students(school.otherTeacher(), school.otherClassId())).extracting(Student::name).containsExactly("Isla");
        roster.answerJoin(school.teacher(), school.classId(), school.otherClassId(), school.student().id(), true);
        assertThat(roster.students(school.otherTeacher(), school.otherClassId())).as("nobody asks any more").hasSize(1);
    }

    @Test
    void a_passphrase_has_at_least_28_bits() {
        assertThat(Passphrases.count()).isGreaterThanOrEqualTo(1L << 28);
        assertThat(Passphrases.next().split(" ")).hasSize(4);
    }

    @Test
    void the_passphrase_on_a_card_works_until_a_new_one_is_made_and_is_forgotten_when_it_is_used() throws IOException {
        imported("Bo\nŁukasz\n");
        String passphrase = student("Bo").freshPassphrase();
        ByteArrayOutputStream pdf = new ByteArrayOutputStream();
        cards.write(schoolClass(), "http://school.example/sign-in", roster.printable(school.teacher(), classId), pdf);
        try (PDDocument document = Loader.loadPDF(pdf.toByteArray())) {
            assertThat(new PDFTextStripper().getText(document)).contains("Bo", "Łukasz", passphrase, schoolClass().code(), "8 Heron");
        }
        assertThat(signIn.student(schoolClass().code(), "Bo", passphrase, NO_LAPTOP)).isInstanceOf(SignIn.Result.Welcome.class);
        assertThat(student("Bo").freshPassphrase()).isNull();
        roster.newPassphrases(school.teacher(), classId, List.of(student("Bo").id()));
        assertThat(signIn.student(schoolClass().code(), "Bo", passphrase, NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
        assertThat(signIn.student(schoolClass().code(), "Bo", student("Bo").freshPassphrase(), NO_LAPTOP)).isInstanceOf(SignIn.Result.Welcome.class);
    }

    @Test
    void moving_a_student_opens_the_new_crews_episode_shuts_the_old_one_and_frees_their_parts() {
        long part = schools.part(school, "Ending");
        Person noor = school.student();
        Crew mudlark = crews.ofClass(school.teacher(), school.classId()).get(1);
        briefs.give(school.teacher(), school.episodeId(), part, noor.id());
        crews.move(school.teacher(), school.classId(), noor.id(), mudlark.id());
        assertThat(access.episodesOf(noor)).extracting(it -> it.id()).containsExactly(mudlark.episodeId());
        assertThatThrownBy(() -> access.episode(noor, school.episodeId())).isInstanceOf(NotFound.class);
        assertThat(briefs.owners(school.classId(), school.episodeId())).isEmpty();
        assertThatThrownBy(() -> briefs.give(school.teacher(), school.episodeId(), part, noor.id())).hasMessage("brief.NOT_IN_CREW");
    }

    @Test
    void dealing_makes_crews_of_a_size_and_one_of_what_is_left() {
        imported("Ann\nBo\nCy\nDee\nEli\n");
        crews.deal(school.teacher(), classId, 2);
        Map<Long, Long> sizes = roster.students(school.teacher(), classId).stream()
                .collect(groupingBy(Student::crewId, counting()));
        assertThat(sizes.values()).containsExactlyInAnyOrder(2L, 2L, 1L);
    }

    @Test
    void a_new_crew_begins_with_the_starter_layout_which_undo_does_not_take_away() throws IOException {
        long jingle = schools.shelfSound(school, "Jingle", Signal.sine(2, 440, -12, 2));
        BriefDraft d = schools.draft(school);
        briefs.change(school.teacher(), school.classId(), new BriefDraft(d.version(), d.project(), d.story(), d.loudnessLufs(), d.ceilingDbtp(),
                d.shortest(), d.longest(), d.dueDay(), d.outputFormat(), d.recipe(), d.actions(), List.of(), List.of(), List.of(),
                List.of(new BriefDraft.ClipDraft("Music", jingle, 0, "0:00", -6), new BriefDraft.ClipDraft("Music", jingle, 0, "0:01", -9)), true));
        long episode = crews.add(school.teacher(), school.classId(), "Osprey", "Ospreys");
        Timeline timeline = bench.head(school.teacher(), episode).timeline();
        assertThat(timeline.tracks()).as("what overlaps goes to a track beside it").extracting(it -> it.name()).containsExactly("Music", "Music 2");
        assertThat(timeline.tracks().get(1).clips()).extracting(Clip::startFrame, Clip::frames, Clip::gainDb)
                .containsExactly(tuple(Frames.ofSeconds(1), Frames.ofSeconds(2), -9.0));
        assertThat(bench.head(school.teacher(), episode).point().undoTarget()).isEmpty();
        assertThat(takes.ready(episode)).as("one take, laid twice").hasSize(1);

        crews.remove(school.teacher(), school.classId(), crews.ofClass(school.teacher(), school.classId()).get(2).id());
        assertThat(crews.ofClass(school.teacher(), school.classId())).extracting(Crew::name).doesNotContain("Osprey");
    }

    @Test
    void a_crew_that_has_begun_cannot_be_taken_away() throws IOException {
        schools.readyTake(school, Schools.speech(), "Noor");
        long kingfisher = crews.ofClass(school.teacher(), school.classId()).get(0).id();
        assertThatThrownBy(() -> crews.remove(school.teacher(), school.classId(), kingfisher)).hasMessage("roster.CREW_HAS_BEGUN");
    }

    @Test
    void an_on_air_name_never_tells_the_surname() {
        imported("Zoë Quill\n");
        Student zoe = student("Zoë Quill");
        assertThatThrownBy(() -> roster.change(school.teacher(), classId, zoe.id(), "Zoë Quill", "", "Zoë Quill", null))
                .hasMessage("roster.ON_AIR_SURNAME");
        roster.change(school.teacher(), classId, zoe.id(), "Zoë Quill", "7", "Zo", Consent.NONE);
        assertThat(student("Zoë Quill").onAirName()).isEqualTo("Zo");
    }
}

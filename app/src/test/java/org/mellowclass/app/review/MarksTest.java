package org.mellowclass.app.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.io.IOException;
import java.util.List;
import java.util.Map;

import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Span;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class MarksTest {

    @Autowired
    private MockMvc mvc;
    @Autowired
    private Marks marks;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient database;
    private Schools.School school;
    private HandIn handIn;

    @BeforeEach
    void handIn() throws IOException {
        school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        handIn = schools.readyHandIn(school);
        for (String criterion : List.of("Clear", "Surprise")) {
            database.sql("INSERT INTO brief_criterion (class_id, position, name, most_points) VALUES (?, ?, ?, 5)").params(school.classId(), criterion.length(), criterion).update();
        }
    }

    private void save(boolean send, Map<String, String> typed) {
        marks.save(school.teacher(), handIn.id(), typed, send);
    }

    @Test
    void a_draft_is_seen_by_the_teacher_alone_until_it_is_sent() {
        save(false, Map.of("points-0", "4", "sentence-0", "Every word.", "summary", "A fine story."));
        assertThat(marks.sheet(school.student(), handIn).marks()).isEmpty();
        assertThat(marks.sheet(school.teacher(), handIn)).satisfies(sheet -> {
            assertThat(sheet.sent()).isFalse();
            assertThat(sheet.ofCrew(0).points()).isEqualTo(4);
            assertThat(sheet.ofCrew(1).points()).isNull();
        });
        save(true, Map.of("points-0", "4", "points-1", "5", "summary", "A fine story."));
        assertThat(marks.sheet(school.student(), handIn)).satisfies(sheet -> {
            assertThat(sheet.sent()).isTrue();
            assertThat(sheet.summary()).isEqualTo("A fine story.");
            assertThat(sheet.marks()).extracting(Marks.Mark::points).containsExactly(4, 5);
        });
        save(false, Map.of("points-0", "3"));
        assertThat(marks.sheet(school.student(), handIn).ofCrew(0).points()).as("what was sent stays sent, corrected").isEqualTo(3);
    }

    @Test
    void what_points_mean_is_kept_as_it_was_called_when_they_were_given() {
        database.sql("UPDATE brief_criterion SET levels = '0 not yet; 3 mostly; 5 all through' WHERE class_id = ?").param(school.classId()).update();
        save(true, Map.of("points-0", "4", "points-1", "2", "points-1-" + school.student().id(), "5"));
        database.sql("UPDATE brief_criterion SET levels = '' WHERE class_id = ?").param(school.classId()).update();
        Marks.Sheet sheet = marks.sheet(school.student(), handIn);
        assertThat(sheet.ofCrew(0).level()).isEqualTo("mostly");
        assertThat(sheet.ofCrew(1).level()).isEqualTo("not yet");
        assertThat(sheet.ofStudent(1, school.student().id()).level()).isEqualTo("all through");
    }

    @Test
    void places_that_speak_for_a_mark_are_seen_by_the_crew_and_written_anew_each_time() {
        save(true, Map.of("points-0", "4", "places-0", "0:01.5 to 0:02, 0:03–0:03.25"));
        assertThat(marks.sheet(school.student(), handIn).placesOf(0)).containsExactly(new Span(72_000, 96_000), new Span(144_000, 156_000));
        assertThat(marks.sheet(school.student(), handIn).placesOf(1)).isEmpty();
        save(true, Map.of("points-0", "4", "places-0", "0:01 to 59:00"));
        assertThat(marks.sheet(school.student(), handIn).placesOf(0)).as("no further than the hand-in reaches").containsExactly(new Span(48_000, handIn.frames()));
        for (String wrong : List.of("0:02", "0:03 to 0:02", "soon to later", "59:00 to 59:10", "1-2,1-3,1-4,1-5,2-3,2-4")) {
            assertThatThrownBy(() -> save(true, Map.of("points-0", "1", "places-0", wrong))).as(wrong).hasMessageContaining("marks.PLACES");
        }
        assertThat(marks.sheet(school.student(), handIn).ofCrew(0).points()).as("nothing is lost").isEqualTo(4);
    }

    @Test
    void marks_of_one_student_are_seen_by_that_student_alone() {
        save(true, Map.of("points-0", "4", "points-0-" + school.student().id(), "5"));
        assertThat(marks.sheet(school.student(), handIn).ofStudent(0, school.student().id()).points()).isEqualTo(5);
        assertThat(marks.sheet(school.partner(), handIn).marks()).extracting(Marks.Mark::studentId).containsOnlyNulls();
    }

    @Test
    void points_beyond_the_most_and_strangers_are_refused_and_nothing_is_lost() {
        save(false, Map.of("points-0", "4"));
        assertThatThrownBy(() -> save(true, Map.of("points-0", "6"))).hasMessageContaining("marks.POINTS");
        assertThatThrownBy(() -> save(true, Map.of("points-0", "-1"))).hasMessageContaining("marks.POINTS");
        assertThat(marks.sheet(school.teacher(), handIn).ofCrew(0).points()).isEqualTo(4);
        assertThatThrownBy(() -> marks.save(school.student(), handIn.id(), Map.of(), true)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> marks.ofClass(school.otherTeacher(), school.classId())).isInstanceOf(NotFound.class);
    }

    @Test
    void the_table_for_other_programs_has_its_header_and_no_formulas() throws IOException {
        save(true, Map.of("points-0", "4", "places-0", "0:02 to 0:03, 1-1.5", "sentence-0", "=HYPERLINK(\"x\")", "summary", "Comma, and \"quotes\"."));
        try (CSVParser parser = CSVParser.parse(marks.csv(school.teacher(), school.classId()), CSVFormat.RFC4180.builder().setHeader().setSkipHeaderRecord(true).get())) {
            assertThat(parser.getHeaderNames()).containsExactly("crew", "episode", "hand-in", "student", "criterion", "points", "most points", "level", "places", "sentence", "summary", "sent at");
            List<CSVRecord> lines = parser.getRecords();
            assertThat(lines).hasSize(2);
            assertThat(lines.get(0).get("sentence")).isEqualTo("'=HYPERLINK(\"x\")");
            assertThat(lines.get(0).get("summary")).isEqualTo("Comma, and \"quotes\".");
            assertThat(lines.get(0).get("points")).isEqualTo("4");
            assertThat(lines.get(0).get("places")).isEqualTo("1.00-1.50 2.00-3.00");
            assertThat(lines.get(1).get("points")).isEmpty();
        }
    }

    @Test
    void at_a_glance_each_crew_has_a_line_of_its_newest_marked_hand_in() throws Exception {
        save(true, Map.of("points-0", "4", "points-1", "3", "points-1-" + school.student().id(), "5"));
        List<MarksTable> lines = MarksTable.of(marks.ofClass(school.teacher(), school.classId()));
        assertThat(lines).extracting(MarksTable::sum).containsExactlyInAnyOrder(7, 5);
        assertThat(lines).extracting(MarksTable::studentName).containsExactlyInAnyOrder(null, school.student().name());
        String page = mvc.perform(get("/classes/" + school.classId() + "/marks").with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
        assertThat(page).contains(">4 of 5<", ">3 of 5<", ">7 of 10<");
    }
}

package org.mellowclass.app.everything;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.io.ByteArrayInputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.media.SoundDecoder;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class EverythingKeptTest {

    /** Where each table that points to a person is told, or why it is not. */
    private static final Map<String, String> TOLD = Map.ofEntries(Map.entry("class_student", "classes"), Map.entry("crew_member", "crews"), Map.entry("take", "takes"),
            Map.entry("take_voice", "takes"), Map.entry("revision", "edits"), Map.entry("hand_in", "handIns"), Map.entry("margin_note", "notes"), Map.entry("note_reply", "answers"), Map.entry("heard_span", "listened"), Map.entry("mark", "marks"), Map.entry("consent", "consents"),
            Map.entry("part_owner", "crews"), Map.entry("guest", "guestsNamed"), Map.entry("erase_request", "askedToErase"), Map.entry("line_up", "linedUp"),
            Map.entry("incoming_file", "filesOnTheWay"), Map.entry("known_laptop", "laptops"), Map.entry("join_request", "askedInto"), Map.entry("security_event", "log"));
    private static final Set<String> OF_TEACHERS = Set.of("let_through", "marking", "class_teacher", "publication", "mail", "invitation", "shelf_sound", "password_reset", "taken_back");
    /** Gone after seconds. */
    private static final Set<String> PASSING = Set.of("presence");

    @TempDir
    private Path folder;
    @Autowired
    private Schools schools;
    @Autowired
    private SoundDecoder decoder;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private ObjectMapper json;
    @Autowired
    private JdbcClient database;

    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private Map<String, byte[]> everything(String address, Person who) throws Exception {
        Map<String, byte[]> entries = new HashMap<>();
        byte[] bytes = mvc.perform(get(address).with(As.person(who))).andReturn().getResponse().getContentAsByteArray();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(bytes))) {
            for (ZipEntry entry; (entry = zip.getNextEntry()) != null;) {
                entries.put(entry.getName(), zip.readAllBytes());
            }
        }
        return entries;
    }

    @Test
    void a_student_gets_all_that_is_kept_of_them_with_their_voice() throws Exception {
        long take = schools.readyTake(school, Signal.sine(1, 300, -20, 2), "Noor");
        long partners = schools.readyTake(school, Signal.sine(1, 500, -20, 1), "Tess");
        database.sql("UPDATE take SET author_id = ? WHERE id = ?").params(school.partner().id(), partners).update();
        database.sql("UPDATE take_voice SET person_id = ? WHERE take_id = ?").params(school.partner().id(), partners).update();
        database.sql("INSERT INTO returned_file (take_id, original_key, returned_at) SELECT take_id, original_key, now(6) FROM original WHERE take_id = ?").param(take).update();
        long returned = database.sql("SELECT id FROM returned_file WHERE take_id = ?").param(take).query(Long.class).single();
        Map<String, byte[]> entries = everything("/everything", school.student());
        String wav = "takes/take-" + take + ".wav";
        assertThat(entries).containsOnlyKeys("everything.json", wav, "takes/take-" + take + "-as-it-came.wav", "takes/take-" + take + "-came-back-" + returned + ".wav");
        Path file = Files.write(folder.resolve("take.wav"), entries.get(wav));
        assertThat(decoder.probe(file).seconds()).isEqualTo(2.0);
        JsonNode all = json.readTree(entries.get("everything.json"));
        assertThat(all.at("/person/name").asText()).isEqualTo("Noor");
        assertThat(all.at("/consents/0/mayBeHeard").asText()).isEqualTo("PUBLIC");
        assertThat(all.at("/takes")).hasSize(1);
        assertThat(all.at("/takes/0/files/0").asText()).isEqualTo(wav);
        assertThat(all.at("/crews/0/episode").asText()).isEqualTo("Eels");
        assertThat(all.at("/edits").size()).isPositive();
        assertThat(new String(entries.get("everything.json"))).as("keys are nobody's business").doesNotContainPattern("[0-9a-f]{32}");
    }

    @Test
    void their_teacher_gets_the_same_for_the_family() throws Exception {
        schools.readyTake(school, Signal.sine(1, 300, -20, 1), "Noor");
        assertThat(everything("/classes/" + school.classId() + "/students/" + school.student().id() + "/everything", school.teacher()).keySet())
                .isEqualTo(everything("/everything", school.student()).keySet());
    }

    @Test
    void a_teacher_of_another_class_that_they_are_in_too_gets_nothing_of_it() throws Exception {
        database.sql("INSERT INTO class_student (class_id, person_id, home) VALUES (?, ?, FALSE)").params(school.otherClassId(), school.student().id()).update();
        String address = "/classes/" + school.otherClassId() + "/students/" + school.student().id() + "/everything";
        assertThat(mvc.perform(get(address).with(As.person(school.otherTeacher()))).andReturn().getResponse().getStatus()).isEqualTo(404);
    }

    @Test
    void no_table_that_points_to_a_person_is_left_out() throws Exception {
        List<String> pointing = database.sql("""
                SELECT DISTINCT table_name FROM information_schema.key_column_usage WHERE table_schema = database() AND referenced_table_name = 'person'
                """).query(String.class).list();
        assertThat(pointing).allMatch(table -> TOLD.containsKey(table) || OF_TEACHERS.contains(table) || PASSING.contains(table));
        JsonNode all = json.readTree(everything("/everything", school.student()).get("everything.json"));
        assertThat(TOLD.values()).allSatisfy(section -> assertThat(all.has(section)).as(section).isTrue());
    }
}

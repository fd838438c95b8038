package org.mellowclass.app.roster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.util.List;
import java.util.Map;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class ConsentsTest {

    @Autowired
    private Roster roster;
    @Autowired
    private Classes classes;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private Schools schools;
    private Schools.School school;
    private long classId;

    @BeforeEach
    void aClassOfThree() {
        school = schools.build();
        classId = classes.add(school.teacher(), "8 Heron");
        roster.importList(school.teacher(), classId, "Noor Haddad\nRavi Patel\nWren Silva\n", RosterPlan.Answers.NONE, "");
    }

    private List<Student> students() {
        return roster.students(school.teacher(), classId);
    }

    private String page(String address) throws Exception {
        return mvc.perform(get("/classes/" + classId + address).with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
    }

    @Test
    void several_families_are_written_down_at_once_with_who_said_so() throws Exception {
        roster.agree(school.teacher(), classId, List.of(students().get(0).id(), students().get(2).id()), Consent.PUBLIC, " mother, on paper ");
        assertThat(students()).extracting(Student::name, Student::consent, Student::consentSaidBy).containsExactly(
                tuple("Noor Haddad", Consent.PUBLIC, "mother, on paper"), tuple("Ravi Patel", null, null), tuple("Wren Silva", Consent.PUBLIC, "mother, on paper"));
        assertThat(page("/consents")).contains("Next: 1 family to ask", "mother, on paper", "nobody has recorded a consent");
        assertThat(page("/students/" + students().get(0).id())).as("in the student's history").contains("said by mother, on paper · written down by ");
    }

    @Test
    void a_changed_mind_is_written_down_beside_what_was_said_before() {
        long noor = students().get(0).id();
        roster.agree(school.teacher(), classId, List.of(noor), Consent.PUBLIC, "father");
        roster.agree(school.teacher(), classId, List.of(noor), Consent.NONE, "");
        assertThat(roster.consents(school.teacher(), classId, noor)).extracting(RosterMapper.Recorded::extent, RosterMapper.Recorded::saidBy)
                .containsExactly(tuple(Consent.NONE, ""), tuple(Consent.PUBLIC, "father"));
    }

    @Test
    void nobody_ticked_too_long_a_text_and_a_child_of_another_class_are_refused_and_nobody_is_written_down() {
        List<Long> noor = List.of(students().get(0).id());
        assertThatThrownBy(() -> roster.agree(school.teacher(), classId, List.of(), Consent.PUBLIC, "")).hasMessage("roster.NOBODY_TICKED");
        assertThatThrownBy(() -> roster.agree(school.teacher(), classId, noor, Consent.PUBLIC, "x".repeat(121))).hasMessage("roster.SAID_BY");
        assertThatThrownBy(() -> roster.agree(school.teacher(), classId, List.of(noor.get(0), school.student().id()), Consent.PUBLIC, "")).isInstanceOf(NotFound.class);
        assertThat(students()).extracting(Student::consent).containsOnlyNulls();
    }

    @Test
    void each_family_has_its_sheet_without_a_surname_on_air() throws Exception {
        assertThat(page("/consents/form")).contains("Form for Noor Haddad", "Form for Ravi Patel", "<b>Noor</b>, never the surname");
    }
}

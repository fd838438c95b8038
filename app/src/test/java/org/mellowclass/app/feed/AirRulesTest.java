package org.mellowclass.app.feed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.IOException;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.soundcheck.Reading;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

/** A cleared hand-in that is too short for its brief. */
@AppTest
class AirRulesTest {

    @Autowired
    private AirRules rules;
    @Autowired
    private AirDesk desk;
    @Autowired
    private HandIns handIns;
    @Autowired
    private Access access;
    @Autowired
    private Schools schools;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;
    private HandIn handIn;

    @BeforeEach
    void cleared() throws IOException {
        school = schools.build();
        schools.consent(school.teacher(), school.student(), Consent.PUBLIC);
        schools.readyTake(school, Schools.speech(), "Noor");
        handIn = schools.readyHandIn(school);
        schools.clear(school.teacher(), handIn.id());
    }

    private void publish() {
        desk.publish(school.teacher(), school.episodeId(), "Eels", "A story.");
    }

    private Reading.Kind notGood() {
        return handIns.report(handIn).mendFirst().get(0).kind();
    }

    @Test
    void what_must_be_good_keeps_the_gate_shut_until_it_is_let_through_with_a_reason() throws Exception {
        rules.change(school.teacher(), school.classId(), Set.of(notGood(), Reading.Kind.TRUE_PEAK), false);
        assertThat(desk.gate(handIn).readings()).extracting(reading -> reading.reading().kind()).as("what is good is not told").containsExactly(notGood());
        assertThatThrownBy(this::publish).isInstanceOf(Refusal.class).extracting("code").isEqualTo("air.READINGS");
        String page = mvc.perform(get("/episodes/" + school.episodeId() + "/air").with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
        assertThat(page).contains("What must be good first", "Let it through");
        mvc.perform(post("/episodes/" + school.episodeId() + "/air/let-through").with(As.person(school.teacher())).with(csrf()).param("kind", notGood().name()).param("reason", " "))
                .andExpect(status().isUnprocessableEntity());
        mvc.perform(post("/episodes/" + school.episodeId() + "/air/let-through").with(As.person(school.teacher())).with(csrf()).param("kind", notGood().name()).param("reason", "The river is loud."))
                .andExpect(status().is3xxRedirection());
        assertThat(desk.gate(handIn).readings().get(0).letThrough().reason()).isEqualTo("The river is loud.");
        publish();
        assertThat(desk.newest(access.episode(school.teacher(), school.episodeId()))).isPresent();
    }

    @Test
    void letting_through_is_of_one_hand_in_alone() throws IOException {
        rules.change(school.teacher(), school.classId(), Set.of(notGood()), false);
        desk.letThrough(school.teacher(), school.episodeId(), notGood(), "The river is loud.");
        schools.readyTake(school, Schools.speech(), "Noor");
        HandIn second = schools.readyHandIn(school);
        schools.clear(school.teacher(), second.id());
        if (desk.gate(second).readings().isEmpty()) {
            rules.change(school.teacher(), school.classId(), Set.of(handIns.report(second).mendFirst().get(0).kind()), false);
        }
        assertThat(desk.gate(second).readings()).isNotEmpty().allSatisfy(reading -> assertThat(reading.letThrough()).isNull());
    }

    @Test
    void where_only_the_lead_may_nobody_else_does_and_a_class_without_a_rule_asks_nothing() {
        assertThat(desk.gate(handIn).readings()).isEmpty();
        rules.change(school.teacher(), school.classId(), Set.of(notGood()), true);
        assertThat(rules.of(school.classId()).leadOnly()).isTrue();
        if (access.leads(school.teacher())) {
            desk.letThrough(school.teacher(), school.episodeId(), notGood(), "The river is loud.");
        } else {
            assertThatThrownBy(() -> desk.letThrough(school.teacher(), school.episodeId(), notGood(), "The river is loud.")).isInstanceOf(NotFound.class);
        }
        assertThatThrownBy(() -> rules.change(school.otherTeacher(), school.classId(), Set.of(), false)).isInstanceOf(NotFound.class);
    }
}

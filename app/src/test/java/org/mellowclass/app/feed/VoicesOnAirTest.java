package org.mellowclass.app.feed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.util.List;
import java.util.Map;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.news.News;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.roster.Roster;
import org.mellowclass.app.roster.RosterPlan;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

/** What families were promised: a voice that may not be heard in public any more is off air with the press that says so. */
@AppTest
class VoicesOnAirTest {

    @Autowired
    private AirDesk airDesk;
    @Autowired
    private VoicesOnAir onAir;
    @Autowired
    private Voices voices;
    @Autowired
    private Roster roster;
    @Autowired
    private News news;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient jdbc;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;
    private long take;
    private HandIn handIn;
    private String sound;

    @BeforeEach
    void anEpisodeOnAir() throws Exception {
        school = schools.build();
        take = schools.readyTake(school, Schools.speech(), "Noor");
        handIn = schools.readyHandIn(school);
        schools.clear(school.teacher(), handIn.id());
        airDesk.publish(school.teacher(), school.episodeId(), "Eels & otters", "A story.");
        Schools.await(this::isOnAir);
        Publication published = airDesk.onAir(school.episodeId()).orElseThrow();
        sound = "/f/" + airDesk.feedKey(school.teacher(), school.classId()) + "/" + published.publicKey() + "/" + published.fileName() + ".mp3";
        mvc.perform(get(sound)).andExpect(status().isOk());
    }

    private boolean isOnAir() {
        return airDesk.onAir(school.episodeId()).isPresent();
    }

    private String page(Person viewer, String address) throws Exception {
        return mvc.perform(get(address).with(As.person(viewer))).andExpect(status().isOk()).andReturn().getResponse().getContentAsString();
    }

    private void assertGone() throws Exception {
        assertThat(isOnAir()).isFalse();
        mvc.perform(get(sound)).andExpect(status().isGone());
    }

    private List<News.Kind> news(Person reader) {
        return news.read(reader).items().stream().map(News.Item::kind).filter(kind -> kind == News.Kind.TAKEN_BACK || kind == News.Kind.TAKEN_BACK_IN_SCHOOL).toList();
    }

    @Test
    void the_students_page_says_what_goes_and_saving_it_takes_it_off_air_and_everybody_is_told_until_it_was_read() throws Exception {
        String student = "/classes/" + school.classId() + "/students/" + school.student().id();
        assertThat(page(school.teacher(), student + "/on-air")).contains("Eels &amp; otters", "goes off air");
        assertThatThrownBy(() -> onAir.with(school.otherTeacher(), school.otherClassId(), school.student().id())).as("nobody of that class").isInstanceOf(NotFound.class);
        mvc.perform(post(student).with(As.person(school.teacher())).with(csrf()).param("name", school.student().name()).param("onAirName", "Noor").param("consent", "SCHOOL"))
                .andExpect(status().isFound());
        assertGone();
        String told = "/classes/" + school.classId() + "/taken-back";
        assertThat(page(school.teacher(), told)).contains("“Eels &amp; otters” is off air.", "I have read it");
        assertThat(page(school.teacher(), "/episodes/" + school.episodeId() + "/air")).contains("“Eels &amp; otters” is off air.", "Say who speaks");
        assertThat(news(school.teacher())).containsExactly(News.Kind.TAKEN_BACK);
        assertThat(page(school.teacher(), student + "/on-air")).doesNotContain("Eels");
        long id = onAir.unread(school.teacher(), school.classId()).get(0).id();
        assertThatThrownBy(() -> onAir.read(school.otherTeacher(), school.classId(), id)).isInstanceOf(NotFound.class);
        onAir.read(school.otherTeacher(), school.otherClassId(), id);
        assertThat(onAir.unread(school.teacher(), school.classId())).as("read in another class is not read").hasSize(1);
        mvc.perform(post(told + "/" + id).with(As.person(school.teacher())).with(csrf())).andExpect(status().isFound());
        assertThat(page(school.teacher(), told)).doesNotContain("Eels");
        assertThat(page(school.teacher(), "/episodes/" + school.episodeId() + "/air")).doesNotContain("is off air.");
    }

    @Test
    void taken_back_in_another_class_it_goes_off_air_all_the_same_and_both_teachers_are_told() throws Exception {
        jdbc.sql("INSERT INTO class_student (class_id, person_id) VALUES (?, ?)").params(school.otherClassId(), school.student().id()).update();
        roster.agree(school.otherTeacher(), school.otherClassId(), List.of(school.student().id()), Consent.NONE, "mother");
        assertGone();
        String elsewhere = page(school.otherTeacher(), "/classes/" + school.otherClassId() + "/taken-back");
        assertThat(elsewhere).contains("is off air.", "whose teachers are told").doesNotContain("I have read it", "/episodes/" + school.episodeId());
        assertThat(page(school.teacher(), "/classes/" + school.classId() + "/taken-back")).contains("is off air.", "I have read it");
        assertThat(news(school.teacher())).containsExactly(News.Kind.TAKEN_BACK);
        assertThat(news(school.otherTeacher())).isEmpty();
    }

    @Test
    void who_leads_the_school_is_told_of_all_classes() throws Exception {
        jdbc.sql("UPDATE person SET is_lead = (id = ?) WHERE school_id = ?").params(school.otherTeacher().id(), school.teacher().schoolId()).update();
        roster.agree(school.teacher(), school.classId(), List.of(school.student().id()), Consent.NONE, "");
        assertThat(news(school.otherTeacher())).containsExactly(News.Kind.TAKEN_BACK_IN_SCHOOL);
        assertThat(page(school.otherTeacher(), "/school/taken-back")).contains("“Eels &amp; otters” is off air.");
        assertThatThrownBy(() -> onAir.unreadOfSchool(school.teacher())).isInstanceOf(NotFound.class);
    }

    @Test
    void a_list_that_is_brought_in_takes_it_back_too() throws Exception {
        roster.importList(school.teacher(), school.classId(), "name,consent\n" + school.student().name() + ",none\n",
                new RosterPlan.Answers(Map.of(2, school.student().id()), Map.of()), "");
        assertGone();
    }

    @Test
    void a_guest_and_a_voice_that_is_found_in_a_take_are_voices_like_others() throws Exception {
        long guest = voices.addGuest(school.student(), school.episodeId(), "Mr Sedge", Consent.PUBLIC).get(0).id();
        voices.name(school.teacher(), school.episodeId(), take, Set.of(new Speaker.Student(school.student().id()), new Speaker.OfGuest(guest)), false);
        assertThat(isOnAir()).as("he may be heard").isTrue();
        voices.addGuest(school.student(), school.episodeId(), "Mr Sedge", Consent.SCHOOL);
        assertGone();
        voices.name(school.teacher(), school.episodeId(), take, Set.of(new Speaker.Student(school.student().id())), false);
        airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.");
        Schools.await(this::isOnAir);
        jdbc.sql("DELETE FROM consent WHERE person_id = ?").param(school.partner().id()).update();
        voices.name(school.teacher(), school.episodeId(), take, Set.of(new Speaker.Student(school.partner().id())), false);
        assertThat(isOnAir()).as("somebody speaks in it of whom nobody knows").isFalse();
    }

    @Test
    void a_correction_with_the_voice_is_stopped_and_what_is_on_air_without_it_stays() throws Exception {
        long second = schools.readyTake(school, Schools.speech(), "Tess");
        voices.name(school.teacher(), school.episodeId(), second, Set.of(new Speaker.Student(school.partner().id())), false);
        HandIn newer = schools.readyHandIn(school);
        jdbc.sql("UPDATE publication SET next_hand_in_id = ? WHERE episode_id = ?").params(newer.id(), school.episodeId()).update();
        roster.agree(school.teacher(), school.classId(), List.of(school.partner().id()), Consent.NONE, "");
        assertThat(airDesk.onAir(school.episodeId()).orElseThrow().nextHandInId()).isNull();
        mvc.perform(get(sound)).andExpect(status().isOk());
        assertThat(page(school.teacher(), "/classes/" + school.classId() + "/taken-back")).contains("does not go on air", "What was on air stays.");
    }

    @Test
    void what_is_on_its_way_is_looked_at_before_it_arrives() {
        airDesk.correct(school.teacher(), school.episodeId());
        jdbc.sql("UPDATE publication SET state = 'PREPARING' WHERE episode_id = ?").param(school.episodeId()).update();
        schools.consent(school.teacher(), school.student(), Consent.SCHOOL);
        assertThat(onAir.ifTheyMayBeHeard(school.episodeId(), () -> jdbc.sql("UPDATE publication SET state = 'ON_AIR' WHERE episode_id = ? AND state = 'PREPARING'").param(school.episodeId()).update()))
                .isZero();
        assertThat(isOnAir()).isFalse();
    }

    @Test
    void each_night_all_that_is_on_air_is_compared_with_what_was_agreed() throws Exception {
        onAir.lookAtAll();
        assertThat(isOnAir()).isTrue();
        schools.consent(school.teacher(), school.student(), Consent.SCHOOL);
        assertThat(onAir.lookAtAll()).isPositive();
        assertGone();
        assertThat(onAir.unread(school.teacher(), school.classId())).extracting(VoicesOnAir.TakenBack::title).containsExactly("Eels & otters");
        assertThat(onAir.lookAtAll()).as("said once").isZero();
    }
}

package org.mellowclass.app.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.io.IOException;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class EarlyListeningTest {

    @Autowired
    private EarlyListening early;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private Schools schools;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private JdbcClient database;
    private Schools.School school;
    private HandIn handIn;
    private long neighbours;

    @BeforeEach
    void handIn() throws IOException {
        school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        handIn = schools.readyHandIn(school);
        neighbours = early.others(handIn).get(0).id();
    }

    private int status(Person viewer, String address) throws Exception {
        return mvc.perform(get(address).with(As.person(viewer))).andReturn().getResponse().getStatus();
    }

    private void say(String words) {
        early.write(school.neighbour(), handIn.id(), MarginNote.Kind.LOVELY, words, 0, 48_000);
    }

    private MarginNote written() {
        return notes.in(school.teacher(), handIn, handIn).get(0).note();
    }

    @Test
    void an_invited_crew_hears_the_newest_hand_in_and_nothing_else_of_the_episode() throws Exception {
        assertThat(status(school.neighbour(), "/early/" + handIn.id())).isEqualTo(404);
        early.invite(school.teacher(), handIn.id(), neighbours, 3);
        for (String address : new String[] {"/early", "/early/" + handIn.id(), "/early/" + handIn.id() + "/sound"}) {
            assertThat(status(school.neighbour(), address)).as(address).isEqualTo(200);
        }
        for (String address : new String[] {"/hand-ins/" + handIn.id(), "/hand-ins/" + handIn.id() + "/sound", "/episodes/" + school.episodeId() + "/bench"}) {
            assertThat(status(school.neighbour(), address)).as(address).isEqualTo(404);
        }
        assertThat(status(school.stranger(), "/early/" + handIn.id() + "/sound")).isEqualTo(404);
        early.uninvite(school.teacher(), handIn.id(), neighbours);
        assertThat(status(school.neighbour(), "/early/" + handIn.id() + "/sound")).isEqualTo(404);
    }

    @Test
    void an_invitation_ends() {
        early.invite(school.teacher(), handIn.id(), neighbours, 1);
        assertThat(early.toHear(school.neighbour())).hasSize(1);
        database.sql("UPDATE early_listener SET until_at = now(6) - INTERVAL 1 SECOND WHERE episode_id = ?").param(school.episodeId()).update();
        assertThat(early.toHear(school.neighbour())).isEmpty();
    }

    @Test
    void only_a_teacher_of_the_class_invites_and_only_a_crew_of_it() {
        assertThatThrownBy(() -> early.invite(school.student(), handIn.id(), neighbours, 3)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> early.invite(school.teacher(), handIn.id(), -1, 3)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> early.invite(school.teacher(), handIn.id(), neighbours, 400)).isInstanceOf(NotFound.class);
    }

    @Test
    void a_note_to_another_crew_is_read_by_a_teacher_before_the_crew_sees_it() {
        early.invite(school.teacher(), handIn.id(), neighbours, 3);
        say("I could see the lock.");
        assertThat(notes.in(school.student(), handIn, handIn)).isEmpty();
        assertThat(notes.open(handIn)).isEmpty();
        long note = written().id();
        assertThatThrownBy(() -> notes.reply(school.student(), note, "Thank you.")).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> notes.hold(school.neighbour(), note, false)).isInstanceOf(NotFound.class);
        notes.hold(school.teacher(), note, false);
        assertThat(notes.in(school.student(), handIn, handIn)).hasSize(1);
        assertThat(early.written(school.teacher(), school.classId())).extracting(EarlyListening.Written::notes).containsExactly(1);
    }

    @Test
    void a_note_that_is_reported_is_hidden_until_a_teacher_has_looked_at_it() {
        early.invite(school.teacher(), handIn.id(), neighbours, 3);
        say("Boring.");
        long note = written().id();
        notes.hold(school.teacher(), note, false);
        assertThatThrownBy(() -> notes.report(school.neighbour(), note)).isInstanceOf(NotFound.class);
        notes.report(school.partner(), note);
        assertThat(notes.in(school.student(), handIn, handIn)).isEmpty();
        assertThat(written().reportedAt()).isNotNull();
        notes.hold(school.teacher(), note, false);
        assertThat(written().reportedAt()).isNull();
        notes.write(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "Mine.", 0, 4_800));
        long teachers = notes.in(school.teacher(), handIn, handIn).stream().map(MarginNotes.Placed::note).filter(it -> !it.byStudent()).findFirst().orElseThrow().id();
        assertThatThrownBy(() -> notes.report(school.partner(), teachers)).as("a teacher's note").isInstanceOf(NotFound.class);
    }

    @Test
    void its_author_takes_a_note_back_and_nobody_leaves_them_without_end() {
        early.invite(school.teacher(), handIn.id(), neighbours, 3);
        say("Too quick.");
        notes.takeBack(school.neighbour(), written().id());
        assertThat(early.own(school.neighbour(), handIn.id())).isEmpty();
        for (int i = 0; i < 20; i++) {
            say("Note " + i);
        }
        assertThatThrownBy(() -> say("One more.")).hasMessageContaining("early.ENOUGH");
        assertThatThrownBy(() -> notes.takeBack(school.student(), written().id())).isInstanceOf(NotFound.class);
    }
}

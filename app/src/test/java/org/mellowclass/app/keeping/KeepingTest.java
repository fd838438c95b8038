package org.mellowclass.app.keeping;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.time.Clock;
import java.time.LocalDate;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.SignIn;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class KeepingTest {

    @Autowired
    private Keeping keeping;
    @Autowired
    private Access access;
    @Autowired
    private Bench bench;
    @Autowired
    private AirDesk airDesk;
    @Autowired
    private SignIn signIn;
    @Autowired
    private Outbox outbox;
    @Autowired
    private Schools schools;
    @Autowired
    private Clock clock;
    @Autowired
    private JdbcClient database;
    @Autowired
    private MockMvc mvc;

    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private SignIn.Result signInOfStudent() {
        return signIn.student(school.classCode(), "Noor", Schools.PASSPHRASE, "");
    }

    @Test
    void a_class_that_is_let_go_is_hidden_at_once_everywhere_and_whole_when_it_is_taken_back() throws Exception {
        schools.readyTake(school, Schools.speech(), "Noor");
        HandIn handIn = schools.readyHandIn(school);
        schools.clear(school.teacher(), handIn.id());
        airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.");
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        String feed = "/f/" + airDesk.feedKey(school.teacher(), school.classId());
        String episode = feed + "/" + airDesk.onAir(school.episodeId()).orElseThrow().publicKey();

        keeping.letGo(school.teacher(), school.classId());
        assertThatThrownBy(() -> access.taughtClass(school.teacher(), school.classId())).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> bench.head(school.student(), school.episodeId())).isInstanceOf(NotFound.class);
        assertThat(signInOfStudent()).isInstanceOf(SignIn.Result.Wrong.class);
        for (String address : new String[] {feed, feed + "/feed.xml", episode, episode + "/eels.mp3"}) {
            mvc.perform(get(address)).andExpect(status().isNotFound());
        }
        assertThat(keeping.going(school.teacher())).singleElement().satisfies(kept ->
                assertThat(kept.deletedAt()).isEqualTo(kept.goneAt().plus(Keeping.TAKE_BACK)));
        assertThatThrownBy(() -> keeping.takeBack(school.otherTeacher(), school.classId())).isInstanceOf(NotFound.class);

        keeping.takeBack(school.teacher(), school.classId());
        assertThat(bench.head(school.student(), school.episodeId()).timeline().tracks()).hasSize(1);
        assertThat(signInOfStudent()).isInstanceOf(SignIn.Result.Welcome.class);
        for (String address : new String[] {feed, feed + "/feed.xml", episode, episode + "/eels.mp3"}) {
            mvc.perform(get(address)).andExpect(status().isOk());
        }
    }

    @Test
    void a_class_is_kept_until_the_end_of_the_next_school_year_and_teachers_are_told_a_month_before() {
        LocalDate now = LocalDate.now(clock);
        LocalDate end = LocalDate.of(now.getYear() + (now.getMonthValue() > 7 ? 2 : 1), 7, 31);
        assertThat(keeping.of(school.teacher(), school.classId()).keepUntil()).isEqualTo(end);
        keeping.look();
        assertThat(outbox.sentBy(school.teacher())).isEmpty();

        keeping.keepUntil(school.teacher(), school.classId(), now.plusDays(20));
        keeping.look();
        keeping.look();
        assertThat(outbox.sentBy(school.teacher())).singleElement().satisfies(mail -> {
            assertThat(mail.recipient()).isEqualTo(school.teacherEmail());
            assertThat(mail.subject()).isEqualTo("7 Test is deleted soon");
        });
        assertThat(keeping.going(school.teacher())).extracting(Keeping.Kept::id).containsExactly(school.classId());
        keeping.keepUntil(school.teacher(), school.classId(), now.plusYears(1));
        assertThat(keeping.going(school.teacher())).isEmpty();
    }

    @Test
    void a_class_whose_time_is_over_is_hidden_and_stays_when_it_is_taken_back() {
        database.sql("UPDATE school_class SET keep_until = ? WHERE id = ?").params(LocalDate.now(clock).minusDays(3), school.classId()).update();
        keeping.look();
        assertThatThrownBy(() -> access.taughtClass(school.teacher(), school.classId())).isInstanceOf(NotFound.class);
        assertThat(keeping.classesToDelete()).doesNotContain(school.classId());
        keeping.takeBack(school.teacher(), school.classId());
        keeping.look();
        assertThat(access.taughtClass(school.teacher(), school.classId()).id()).isEqualTo(school.classId());
    }

    @Test
    void a_day_that_is_over_or_far_away_is_refused() {
        for (LocalDate day : new LocalDate[] {null, LocalDate.now(clock).minusDays(3), LocalDate.now(clock).plusYears(4)}) {
            assertThatThrownBy(() -> keeping.keepUntil(school.teacher(), school.classId(), day)).hasMessage("keeping.DAY");
        }
    }

    @Test
    void of_a_school_that_is_let_go_only_the_lead_comes_in_and_takes_it_back() {
        assertThatThrownBy(() -> keeping.letSchoolGo(school.otherTeacher())).isInstanceOf(NotFound.class);
        keeping.letSchoolGo(school.teacher());
        assertThat(signInOfStudent()).isInstanceOf(SignIn.Result.Wrong.class);
        assertThat(signIn.teacher("other-" + school.teacherEmail(), Schools.PASSWORD, "")).isInstanceOf(SignIn.Result.Wrong.class);
        assertThat(signIn.teacher(school.teacherEmail(), Schools.PASSWORD, "")).isInstanceOf(SignIn.Result.Welcome.class);
        assertThatThrownBy(() -> access.taughtClass(school.teacher(), school.classId())).isInstanceOf(NotFound.class);
        assertThat(keeping.schoolDeletedAt(school.teacher())).isPresent();
        keeping.takeSchoolBack(school.teacher());
        assertThat(signInOfStudent()).isInstanceOf(SignIn.Result.Welcome.class);
        assertThat(access.taughtClass(school.teacher(), school.classId()).name()).isEqualTo("7 Test");
    }
}

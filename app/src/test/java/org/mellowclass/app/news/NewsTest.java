package org.mellowclass.app.news;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.List;
import java.util.Map;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.review.EarlyListening;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.review.MarginNote;
import org.mellowclass.app.review.MarginNotes;
import org.mellowclass.app.review.Marks;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

@AppTest
class NewsTest {

    @Autowired
    private News news;
    @Autowired
    private HandIns handIns;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private EarlyListening early;
    @Autowired
    private Marks marks;
    @Autowired
    private Outbox outbox;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient database;
    private Schools.School school;
    private HandIn handIn;

    @BeforeEach
    void handIn() throws IOException {
        school = schools.build();
        schools.readyTake(school, Signal.noise(1, -12, 6, 7), "Noor");
        handIn = schools.readyHandIn(school);
    }

    private List<News.Kind> kinds(Person viewer) {
        return news.read(viewer).items().stream().map(News.Item::kind).toList();
    }

    @Test
    void a_teacher_hears_of_a_hand_in_until_it_was_seen_and_nobody_else_does() {
        assertThat(news.unseen(school.teacher())).isEqualTo(1);
        News.Page page = news.read(school.teacher());
        assertThat(page.items()).singleElement().satisfies(item -> {
            assertThat(item.kind()).isEqualTo(News.Kind.HANDED_IN);
            assertThat(item.handInId()).isEqualTo(handIn.id());
            assertThat(page.isNew(item)).isTrue();
        });
        assertThat(news.unseen(school.teacher())).isZero();
        News.Page again = news.read(school.teacher());
        assertThat(again.items()).as("it stays, and is not new").singleElement().satisfies(item -> assertThat(again.isNew(item)).isFalse());
        assertThat(news.unseen(school.otherTeacher())).isZero();
        assertThat(kinds(school.student())).isEmpty();
    }

    @Test
    void a_hand_in_is_news_as_soon_as_it_is_handed_in_and_not_only_once_it_can_be_heard() {
        database.sql("UPDATE hand_in SET state = 'MAKING' WHERE id = ?").param(handIn.id()).update();
        assertThat(kinds(school.teacher())).containsExactly(News.Kind.HANDED_IN);
        database.sql("UPDATE hand_in SET state = 'FAILED' WHERE id = ?").param(handIn.id()).update();
        assertThat(kinds(school.teacher())).as("the crew hands it in again").isEmpty();
    }

    @Test
    void a_crew_hears_what_was_decided_written_answered_and_marked() {
        notes.write(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.MEND, "Slower, please.", 0, 48_000));
        long note = database.sql("SELECT max(id) FROM margin_note WHERE hand_in_id = ?").param(handIn.id()).query(Long.class).single();
        notes.reply(school.student(), note, "We will.");
        handIns.decide(school.teacher(), handIn.id(), HandIn.Decision.ANOTHER_PASS, "Nearly there.");
        marks.save(school.teacher(), handIn.id(), Map.of("summary", "Fine."), false);
        assertThat(kinds(school.partner())).containsExactlyInAnyOrder(News.Kind.NOTE, News.Kind.ANSWER, News.Kind.ANOTHER_PASS);
        assertThat(kinds(school.student())).as("not one's own answer").containsExactlyInAnyOrder(News.Kind.NOTE, News.Kind.ANOTHER_PASS);
        marks.save(school.teacher(), handIn.id(), Map.of("summary", "Fine."), true);
        assertThat(news.read(school.student()).items()).anySatisfy(item -> {
            assertThat(item.kind()).isEqualTo(News.Kind.MARKS);
            assertThat(item.words()).isEqualTo("Fine.");
        });
        assertThat(kinds(school.teacher())).containsExactlyInAnyOrder(News.Kind.HANDED_IN, News.Kind.ANSWER);
        assertThat(kinds(school.stranger())).isEmpty();
    }

    @Test
    void a_note_that_is_held_back_is_news_for_the_teacher_alone() {
        notes.write(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "A bell!", 0, 48_000));
        database.sql("UPDATE margin_note SET held_at = now(6), shown_at = NULL WHERE hand_in_id = ?").param(handIn.id()).update();
        assertThat(kinds(school.student())).isEmpty();
        assertThat(kinds(school.teacher())).contains(News.Kind.TO_READ);
    }

    @Test
    void a_note_that_is_let_through_is_new_for_its_crew_from_then_on_and_an_invitation_is_for_who_is_invited() {
        early.invite(school.teacher(), handIn.id(), early.others(handIn).get(0).id(), 3);
        assertThat(news.read(school.neighbour()).items()).singleElement().satisfies(item -> {
            assertThat(item.kind()).isEqualTo(News.Kind.INVITED);
            assertThat(item.address()).isEqualTo("/early/" + handIn.id());
        });
        early.invite(school.teacher(), handIn.id(), early.others(handIn).get(0).id(), 5);
        assertThat(news.unseen(school.neighbour())).as("longer is not anew").isZero();
        early.write(school.neighbour(), handIn.id(), MarginNote.Kind.LOVELY, "I could see the lock.", 0, 48_000);
        assertThat(kinds(school.student())).as("it is seen, and nothing was in it").isEmpty();
        notes.hold(school.teacher(), early.own(school.neighbour(), handIn.id()).get(0).id(), false);
        assertThat(news.unseen(school.student())).isEqualTo(1);
        assertThat(kinds(school.student())).containsExactly(News.Kind.NOTE);
        early.uninvite(school.teacher(), handIn.id(), early.others(handIn).get(0).id());
        assertThat(kinds(school.neighbour())).isEmpty();
    }

    @Test
    void what_is_new_since_the_last_mail_comes_as_one_to_who_has_chosen_it() {
        news.choose(school.teacher(), News.Mail.DAILY);
        assertThat(news.read(school.teacher()).mail()).isEqualTo(News.Mail.DAILY);
        assertThat(due()).as("what has happened before is not sent").isEmpty();
        database.sql("UPDATE person SET news_mailed_at = now(6) - INTERVAL 2 DAY WHERE id = ?").param(school.teacher().id()).update();
        NewsMapper.Subscriber reader = due().get(0);
        news.send(reader);
        news.send(reader);
        assertThat(outbox.sentBy(school.teacher())).as("once").filteredOn(mail -> mail.subject().startsWith("News")).singleElement().satisfies(mail -> {
            assertThat(mail.subject()).isEqualTo("News of your classes: 1");
            assertThat(mail.body()).contains("handed in");
        });
        assertThat(due()).isEmpty();
        assertThatThrownBy(() -> news.choose(school.student(), News.Mail.DAILY)).isInstanceOf(NotFound.class);
    }

    private List<NewsMapper.Subscriber> due() {
        return news.due().stream().filter(reader -> reader.id() == school.teacher().id()).toList();
    }
}

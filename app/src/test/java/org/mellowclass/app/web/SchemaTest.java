package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.simple.JdbcClient;

/** What the schema itself forbids, on the real MariaDB, whatever the code does. */
@AppTest
class SchemaTest {

    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient jdbc;
    private Schools.School school;
    private HandIn handIn;

    @BeforeEach
    void build() throws IOException {
        school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        handIn = schools.readyHandIn(school);
    }

    @Test
    void one_revision_has_one_number_and_one_client_id() {
        String copy = "INSERT INTO revision SELECT episode_id, %s, timeline_hash, edit, author_id, %s, undo_to, redo_to, "
                + "created_at, maps FROM revision WHERE episode_id = " + school.episodeId() + " AND seq = 2";
        refuses(copy.formatted("seq", "'another'"));
        refuses(copy.formatted("seq + 5", "client_id"));
        assertThat(jdbc.sql(copy.formatted("seq + 5", "'another'")).update()).isEqualTo(1);
    }

    @Test
    void a_ready_take_has_its_sound_and_a_decision_has_somebody_who_made_it() {
        refuses("UPDATE take SET frames = NULL WHERE episode_id = " + school.episodeId());
        refuses("UPDATE sound SET skyline_key = NULL WHERE sound_key IS NOT NULL");
        refuses("UPDATE take SET state = 'MAYBE' WHERE episode_id = " + school.episodeId());
        refuses("UPDATE hand_in SET decision = 'CLEARED' WHERE id = " + handIn.id());
    }

    @Test
    void an_episode_is_live_once_at_a_time() {
        String insert = """
                INSERT INTO publication (episode_id, hand_in_id, public_key, title, description, slug, state,
                                         consent_confirmed_by, created_at)
                VALUES (%d, %d, '%s', 't', 'd', 's', '%s', %d, now())""";
        Object[] common = {school.episodeId(), handIn.id()};
        assertThat(jdbc.sql(insert.formatted(common[0], common[1], "a".repeat(32), "OFF_AIR", school.teacher().id())).update())
                .isEqualTo(1);
        assertThat(jdbc.sql(insert.formatted(common[0], common[1], "b".repeat(32), "PREPARING", school.teacher().id())).update())
                .isEqualTo(1);
        refuses(insert.formatted(common[0], common[1], "c".repeat(32), "PREPARING", school.teacher().id()));
        refuses(insert.formatted(common[0], common[1], "d".repeat(32), "ON_AIR", school.teacher().id()));
        jdbc.sql("DELETE FROM publication WHERE episode_id = ?").param(school.episodeId()).update();
    }

    @Test
    void nothing_belongs_to_what_is_not_there() {
        refuses("INSERT INTO episode (crew_id, title) VALUES (999999999, 'x')");
        refuses("DELETE FROM person WHERE id = " + school.student().id());
        refuses("INSERT INTO person (school_id, role, name, secret_hash) SELECT school_id, 'TEACHER', 'x', 'x' FROM person LIMIT 1");
    }

    private void refuses(String sql) {
        assertThatThrownBy(() -> jdbc.sql(sql).update()).isInstanceOf(DataAccessException.class);
    }
}

package org.mellowclass.app.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

@AppTest
class PresenceTest {

    @Autowired
    private Presence presence;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient database;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    @Test
    void two_who_have_an_episode_open_hear_of_each_other_and_where_they_are() {
        assertThat(presence.here(school.teacher(), school.episodeId(), 96_000)).isEmpty();
        assertThat(presence.here(school.student(), school.episodeId(), 48_000))
                .containsExactly(new Presence.Somebody(school.teacher().id(), school.teacher().name(), 96_000));
        assertThat(presence.here(school.teacher(), school.episodeId(), 0)).extracting(Presence.Somebody::frame).containsExactly(48_000L);
    }

    @Test
    void who_goes_or_is_not_heard_of_any_more_is_not_here() {
        presence.here(school.teacher(), school.episodeId(), 0);
        presence.gone(school.teacher(), school.episodeId());
        assertThat(presence.here(school.student(), school.episodeId(), 0)).isEmpty();
        presence.here(school.teacher(), school.episodeId(), 0);
        database.sql("UPDATE presence SET seen_at = seen_at - INTERVAL 30 SECOND WHERE person_id = ?").param(school.teacher().id()).update();
        assertThat(presence.here(school.student(), school.episodeId(), 0)).isEmpty();
        assertThat(database.sql("SELECT count(*) FROM presence WHERE episode_id = ?").param(school.episodeId()).query(Long.class).single()).isOne();
    }

    @Test
    void nobody_is_told_of_who_is_at_an_episode_that_is_not_theirs() {
        presence.here(school.student(), school.episodeId(), 0);
        assertThatThrownBy(() -> presence.here(school.stranger(), school.episodeId(), 0)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> presence.gone(school.stranger(), school.episodeId())).isInstanceOf(NotFound.class);
    }
}

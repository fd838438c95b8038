package org.mellowclass.app.turns;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.turns.RecordingTurns.Round;
import org.mellowclass.app.web.NotFound;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class RecordingTurnsTest {

    @Autowired
    private RecordingTurns turns;
    @Autowired
    private Schools schools;

    @Test
    void the_turn_goes_from_crew_to_crew_and_the_round_ends_behind_the_last() {
        Schools.School school = schools.build();
        turns.next(school.teacher(), school.classId());
        Round first = turns.ofClass(school.classId()).orElseThrow();
        assertThat(first.now().crewName()).isEqualTo("Kingfisher");
        assertThat(first.before(first.after().get(0).crewId())).isEqualTo(1);

        turns.done(school.neighbour(), school.episodeId() + 1);
        assertThat(turns.ofClass(school.classId()).orElseThrow().now()).as("it was not Mudlark's turn").isEqualTo(first.now());
        turns.done(school.student(), school.episodeId());
        Round second = turns.ofClass(school.classId()).orElseThrow();
        assertThat(second.now().crewName()).isEqualTo("Mudlark");
        assertThat(second.before(first.now().crewId())).as("it has had its turn").isEqualTo(-1);
        turns.next(school.teacher(), school.classId());
        assertThat(turns.ofClass(school.classId())).isEmpty();
    }

    @Test
    void only_the_classs_teacher_gives_turns() {
        Schools.School school = schools.build();
        assertThatThrownBy(() -> turns.next(school.student(), school.classId())).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> turns.next(school.otherTeacher(), school.classId())).isInstanceOf(NotFound.class);
    }
}

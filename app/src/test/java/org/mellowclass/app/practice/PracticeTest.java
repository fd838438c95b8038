package org.mellowclass.app.practice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Remove;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class PracticeTest {

    @Autowired
    private Practice practice;
    @Autowired
    private Access access;
    @Autowired
    private Bench bench;
    @Autowired
    private HandIns handIns;
    @Autowired
    private Schools schools;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    @Test
    void every_student_has_one_of_their_own_that_nobody_else_sees_and_no_list_of_episodes_tells() throws IOException {
        long mine = practice.episodeOf(school.student());
        assertThat(practice.episodeOf(school.student())).isEqualTo(mine);
        assertThat(practice.episodeOf(school.stranger())).isNotEqualTo(mine);
        assertThat(access.isPractice(access.episode(school.student(), mine).classId())).isTrue();
        assertThat(access.isPractice(school.classId())).isFalse();
        assertThat(access.episodesOf(school.student())).extracting(Episode::id).containsExactly(school.episodeId());
        assertThat(access.classesOf(school.teacher())).noneMatch(it -> it.name().equals("Practice"));
        assertThatThrownBy(() -> access.episode(school.teacher(), mine)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> access.episode(school.stranger(), mine)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> practice.episodeOf(school.teacher())).isInstanceOf(NotFound.class);
    }

    @Test
    void it_is_spoiled_and_started_again_and_never_handed_in() throws IOException {
        long mine = practice.episodeOf(school.student());
        Schools.await(() -> bench.head(school.student(), mine).timeline().endFrame() > 0);
        Timeline whole = bench.head(school.student(), mine).timeline();
        bench.edit(school.student(), mine, bench.head(school.student(), mine).seq(), "practice-cut", new Remove(new Span(0, 48_000), Set.of(whole.tracks().get(0).id())));
        practice.startAgain(school.student());
        assertThat(bench.head(school.student(), mine).timeline().tracks()).isEqualTo(whole.tracks());
        assertThatThrownBy(() -> handIns.handIn(school.student(), mine)).hasMessage("hand-in.PRACTICE");
    }
}

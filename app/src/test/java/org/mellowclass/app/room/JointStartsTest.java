package org.mellowclass.app.room;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.UUID;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.MovableClock;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.Refusal;
import org.springframework.beans.factory.annotation.Autowired;

/** Laptops that wait for one word, over networks that are slower than they should be. */
@AppTest
class JointStartsTest {

    @Autowired
    private Schools schools;
    @Autowired
    private Access access;
    @Autowired
    private Bench bench;
    private final MovableClock clock = new MovableClock(Instant.parse("2026-11-02T10:00:00Z"));
    private final String quick = UUID.randomUUID().toString();
    private final String slow = UUID.randomUUID().toString();
    private Schools.School school;
    private JointStarts starts;

    @BeforeEach
    void build() {
        school = schools.build();
        starts = new JointStarts(access, bench, clock);
    }

    private JointStarts.State waits(Person who, String laptop, String heard) {
        return starts.waits(who, school.episodeId(), laptop, heard);
    }

    private JointStarts.Word given() {
        return starts.start(school.teacher(), school.episodeId()).word();
    }

    @Test
    void a_laptop_whose_question_takes_ten_seconds_still_waits_and_still_hears_the_word() {
        waits(school.partner(), slow, "");
        clock.advance(Duration.ofSeconds(10));
        assertThat(waits(school.student(), quick, "").waiting()).containsExactly("Noor", "Tess");
        JointStarts.Word word = given();
        assertThat(waits(school.student(), quick, "").word()).isEqualTo(word);
        clock.advance(Duration.ofSeconds(10));
        assertThat(waits(school.partner(), slow, "").word()).as("also if its answer was lost before").isEqualTo(word).isEqualTo(waits(school.partner(), slow, "").word());
    }

    @Test
    void a_word_is_for_those_who_waited_and_for_one_take() {
        waits(school.student(), quick, "");
        waits(school.partner(), slow, "");
        JointStarts.Word word = given();
        assertThat(waits(school.student(), UUID.randomUUID().toString(), "").word()).as("who comes later waits for the next").isNull();
        assertThat(waits(school.student(), quick, word.key()).word()).as("who has heard it waits anew").isNull();
        assertThat(given().key()).isNotEqualTo(word.key());
    }

    @Test
    void whoever_has_gone_waits_no_more() {
        waits(school.student(), quick, "");
        waits(school.partner(), slow, "");
        clock.advance(Duration.ofSeconds(13));
        assertThat(waits(school.student(), quick, "").waiting()).containsExactly("Noor");
        assertThatThrownBy(this::given).isInstanceOf(Refusal.class);
    }
}

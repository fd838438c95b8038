package org.mellowclass.app.news;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NewsDueTest {

    /** 2026-11-27 is a Friday; lessons are over at four in the school's zone, an hour before it is four in London. */
    @ParameterizedTest
    @CsvSource({"DAILY, 2026-11-26T16:00:00Z, 2026-11-27T14:59:00Z, false", "DAILY, 2026-11-26T16:00:00Z, 2026-11-27T15:00:00Z, true", "DAILY, 2026-11-27T15:00:00Z, 2026-11-28T14:00:00Z, false",
            "WEEKLY, 2026-11-20T15:00:00Z, 2026-11-26T20:00:00Z, false", "WEEKLY, 2026-11-20T15:00:00Z, 2026-11-27T15:00:00Z, true", "WEEKLY, 2026-11-27T15:00:00Z, 2026-11-30T15:00:00Z, false",
            "NEVER, 2026-01-01T00:00:00Z, 2026-11-27T15:00:00Z, false"})
    void mail_is_due_after_lessons_each_day_or_on_fridays(News.Mail mail, Instant mailedAt, Instant now, boolean due) {
        assertThat(News.isDue(mail, mailedAt, now, ZoneId.of("Europe/Paris"))).isEqualTo(due);
    }
}

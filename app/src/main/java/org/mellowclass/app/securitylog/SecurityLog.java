package org.mellowclass.app.securitylog;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Keeps what matters to a school's safety, for its lead to read: in the database, where a person who is deleted is forgotten too. */
@Service
public class SecurityLog {

    private static final Duration KEPT = Duration.ofDays(400);

    private final EventMapper events;
    private final Clock clock;

    SecurityLog(EventMapper events, Clock clock) {
        this.events = events;
        this.clock = clock;
    }

    /** What has happened. */
    public enum Kind {
        SIGNED_IN, REFUSED, UNLOCKED, PASSPHRASE_MADE, PASSWORD_CHANGED, RESET_ASKED, ENDED_ELSEWHERE, CONSENT, ERASED, PUBLISHED, OFF_AIR, TEACHER_TAKEN_OFF, SECOND_STEP,
        STUDENT_DELETED, CLASS_GOES, CLASS_BACK, CLASS_DELETED, SCHOOL_GOES, SCHOOL_BACK, COPY_TAKEN
    }

    /**
     * Something that has happened.
     *
     * @param actor   who did it; null for nobody who is known, or is any more
     * @param subject whom it concerns, or null
     * @param detail  which episode or take, or what was recorded; or null
     */
    public record Event(Instant at, Kind kind, String actor, String subject, String detail) {
    }

    @Mapper
    interface EventMapper {

        @Insert("""
                INSERT INTO security_event (school_id, at, kind, actor_id, subject_id, detail)
                VALUES (#{schoolId}, #{at}, #{kind}, #{actorId}, #{subjectId}, #{detail})
                """)
        void add(long schoolId, Instant at, Kind kind, Long actorId, Long subjectId, String detail);

        @Select("""
                SELECT e.at, e.kind, a.name AS actor, s.name AS subject, e.detail FROM security_event e
                LEFT JOIN person a ON a.id = e.actor_id LEFT JOIN person s ON s.id = e.subject_id
                WHERE e.school_id = #{schoolId} ORDER BY e.id DESC LIMIT #{most}
                """)
        List<Event> newest(long schoolId, int most);

        @Delete("DELETE FROM security_event WHERE at < #{before}")
        void forget(Instant before);
    }

    /** @param actorId who did it, or null; the others as in {@link Event} */
    public void note(long schoolId, Kind kind, Long actorId, Long subjectId, String detail) {
        events.add(schoolId, clock.instant(), kind, actorId, subjectId, detail);
    }

    /** The newest first; whoever asks has been let through. */
    public List<Event> newest(long schoolId, int most) {
        return events.newest(schoolId, most);
    }

    @Scheduled(fixedDelayString = "P1D")
    void forget() {
        events.forget(clock.instant().minus(KEPT));
    }
}

package org.mellowclass.app.securitylog;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bucket;
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

    private static final int MOST_DENIALS = 30;
    private static final Duration HOUR = Duration.ofHours(1);
    private static final int LONGEST_DETAIL = 120;

    private final EventMapper events;
    private final Clock clock;
    private final Cache<Long, Bucket> denials = Caffeine.newBuilder().maximumSize(10_000).expireAfterAccess(HOUR).build();

    SecurityLog(EventMapper events, Clock clock) {
        this.events = events;
        this.clock = clock;
    }

    /** What has happened. */
    public enum Kind {
        SIGNED_IN, REFUSED, UNLOCKED, PASSPHRASE_MADE, PASSWORD_CHANGED, RESET_ASKED, ENDED_ELSEWHERE, CONSENT, ERASED, PUBLISHED, OFF_AIR, TEACHER_TAKEN_OFF, SECOND_STEP, DENIED,
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

        @Insert("INSERT INTO security_event (school_id, at, kind, actor_id, detail) SELECT school_id, #{at}, 'DENIED', id, #{detail} FROM person WHERE id = #{personId}")
        void addDenied(long personId, Instant at, String detail);

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

    /** Somebody who is signed in has asked for what is not theirs. Of one person, so many are kept an hour. @param address without its secrets */
    public void denied(long personId, String address) {
        Bucket bucket = denials.get(personId, id -> Bucket.builder().addLimit(limit -> limit.capacity(MOST_DENIALS).refillGreedy(MOST_DENIALS, HOUR)).build());
        if (bucket.tryConsume(1)) {
            events.addDenied(personId, clock.instant(), address.substring(0, Math.min(LONGEST_DETAIL, address.length())));
        }
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

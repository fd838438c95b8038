package org.mellowclass.app.turns;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.NotFound;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Recording turns: thirty children who speak at once are each other's noise, so the teacher starts a round, and one crew
 * after the other records. It is advice that everybody sees; nobody is kept from recording.
 */
@Service
@Transactional
public class RecordingTurns {

    private final TurnMapper turns;
    private final Access access;
    private final LiveEvents live;
    private final Clock clock;

    RecordingTurns(TurnMapper turns, Access access, LiveEvents live, Clock clock) {
        this.turns = turns;
        this.access = access;
        this.live = live;
        this.clock = clock;
    }

    /** A crew of the class, in the order in which they record. */
    public record InLine(long crewId, String crewName) {
    }

    /**
     * A round that goes on.
     *
     * @param now   whose turn it is
     * @param after who follows, in order
     */
    public record Round(InLine now, List<InLine> after, Instant since) {

        /** How many crews come before a crew has its turn; -1 if it has had it. */
        public int before(long crewId) {
            if (now.crewId == crewId) {
                return 0;
            }
            return after.stream().map(InLine::crewId).toList().indexOf(crewId) < 0 ? -1
                    : after.stream().map(InLine::crewId).toList().indexOf(crewId) + 1;
        }
    }

    @Mapper
    interface TurnMapper {

        record Row(long crewId, Instant startedAt) {
        }

        @Select("SELECT crew_id, started_at FROM recording_round WHERE class_id = #{classId}")
        Optional<Row> find(long classId);

        @Select("SELECT id AS crew_id, name AS crew_name FROM crew WHERE class_id = #{classId} ORDER BY id")
        List<InLine> crews(long classId);

        @Insert("""
                INSERT INTO recording_round (class_id, crew_id, started_at) VALUES (#{classId}, #{crewId}, #{at})
                ON DUPLICATE KEY UPDATE crew_id = #{crewId}, started_at = #{at}
                """)
        void give(long classId, long crewId, Instant at);

        @Delete("DELETE FROM recording_round WHERE class_id = #{classId}")
        void end(long classId);
    }

    /** The live topic on which a class's turns are told. */
    public static String topic(long classId) {
        return "turns-" + classId;
    }

    /** The round of a class that whoever asks has been let through to. */
    @Transactional(readOnly = true)
    public Optional<Round> ofClass(long classId) {
        return turns.find(classId).flatMap(row -> {
            List<InLine> crews = turns.crews(classId);
            for (int i = 0; i < crews.size(); i++) {
                if (crews.get(i).crewId() == row.crewId()) {
                    return Optional.of(new Round(crews.get(i), List.copyOf(crews.subList(i + 1, crews.size())), row.startedAt()));
                }
            }
            return Optional.empty();
        });
    }

    /** Gives the turn to a crew, and starts a round if there is none. */
    public void give(Person viewer, long classId, long crewId) {
        access.taughtClass(viewer, classId);
        if (turns.crews(classId).stream().noneMatch(crew -> crew.crewId() == crewId)) {
            throw new NotFound();
        }
        turns.give(classId, crewId, clock.instant());
        told(classId);
    }

    /** Starts a round with the first crew, or gives the turn to the next; behind the last one the round ends. */
    public void next(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        Optional<Round> round = ofClass(classId);
        List<InLine> following = round.map(Round::after).orElseGet(() -> turns.crews(classId));
        if (following.isEmpty()) {
            turns.end(classId);
        } else {
            turns.give(classId, following.get(0).crewId(), clock.instant());
        }
        told(classId);
    }

    public void end(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        turns.end(classId);
        told(classId);
    }

    /** A crew is done before the teacher says so: the next one has its turn. */
    public void done(Person viewer, long episodeId) {
        Episode episode = access.ownEpisode(viewer, episodeId);
        Optional<Round> round = ofClass(episode.classId());
        if (round.isPresent() && round.get().now().crewId() == episode.crewId()) {
            if (round.get().after().isEmpty()) {
                turns.end(episode.classId());
            } else {
                turns.give(episode.classId(), round.get().after().get(0).crewId(), clock.instant());
            }
            told(episode.classId());
        }
    }

    private void told(long classId) {
        live.changed(topic(classId), 0);
        live.changed(LiveEvents.board(classId), 0);
    }
}

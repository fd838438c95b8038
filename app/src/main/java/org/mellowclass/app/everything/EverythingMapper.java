package org.mellowclass.app.everything;

import java.util.List;
import java.util.Map;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** What the tables keep of one student. */
@Mapper
interface EverythingMapper {

    /** Whether a class is the home class of a student: what is kept of them holds other classes' sound too. */
    @Select("SELECT EXISTS (SELECT 1 FROM class_student WHERE class_id = #{classId} AND person_id = #{personId} AND home)")
    boolean isHome(long classId, long personId);

    @Select("""
            SELECT p.name, p.student_number AS number, p.on_air_name AS onAirName, p.fresh_passphrase AS unusedPassphrase, s.name AS school
            FROM person p JOIN school s ON s.id = p.school_id WHERE p.id = #{personId}
            """)
    Map<String, Object> person(long personId);

    @Select("""
            SELECT c.name, s.home, c.keep_until AS keptUntil FROM class_student s JOIN school_class c ON c.id = s.class_id WHERE s.person_id = #{personId} ORDER BY c.id
            """)
    List<Map<String, Object>> classes(long personId);

    @Select("""
            SELECT c.name AS className, a.name AS askedBy, j.asked_at AS askedAt FROM join_request j JOIN school_class c ON c.id = j.class_id
            JOIN person a ON a.id = j.asked_by WHERE j.person_id = #{personId}
            """)
    List<Map<String, Object>> askedInto(long personId);

    @Select("""
            SELECT crew.name AS crew, e.title AS episode, (SELECT group_concat(bp.name ORDER BY bp.position SEPARATOR ', ') FROM part_owner o
              JOIN brief_part bp ON bp.id = o.part_id WHERE o.episode_id = e.id AND o.person_id = m.person_id) AS parts
            FROM crew_member m JOIN crew ON crew.id = m.crew_id JOIN episode e ON e.crew_id = crew.id WHERE m.person_id = #{personId} ORDER BY crew.id
            """)
    List<Map<String, Object>> crews(long personId);

    @Select("""
            SELECT c.extent AS mayBeHeard, c.said_by AS saidBy, r.name AS recordedBy, c.recorded_at AS recordedAt FROM consent c JOIN person r ON r.id = c.recorded_by
            WHERE c.person_id = #{personId} ORDER BY c.id
            """)
    List<Map<String, Object>> consents(long personId);

    @Select("SELECT last_at AS lastSignInAt FROM known_laptop WHERE person_id = #{personId} ORDER BY last_at")
    List<Map<String, Object>> laptops(long personId);

    @Select("SELECT from_unixtime(CREATION_TIME / 1000) AS since, from_unixtime(LAST_ACCESS_TIME / 1000) AS lastAt FROM SPRING_SESSION WHERE PRINCIPAL_NAME = #{personId} ORDER BY CREATION_TIME")
    List<Map<String, Object>> signedIn(String personId);

    /**
     * A take that somebody has made or speaks in.
     *
     * @param originalKey the file as it came, or null
     * @param soundKey    what it was made into, or null
     */
    record Take(long id, String name, String track, String episode, String state, String origin, boolean madeByThem, String voices, String microphone, String saidOn,
                String originalKey, String soundKey) {
    }

    @Select("""
            SELECT t.id, t.name, t.track_name AS track, e.title AS episode, t.state, t.origin, t.author_id = #{personId} AS made_by_them,
              (SELECT group_concat(coalesce(p.name, g.name) ORDER BY p.name, g.name SEPARATOR ', ') FROM take_voice v
                 LEFT JOIN person p ON p.id = v.person_id LEFT JOIN guest g ON g.id = v.guest_id WHERE v.take_id = t.id) AS voices,
              r.microphone, t.created_at AS said_on, o.original_key,
              (SELECT s.sound_key FROM sound s WHERE s.take_id = t.id AND s.treatment_key = 'as-it-is') AS sound_key
            FROM take t JOIN episode e ON e.id = t.episode_id LEFT JOIN recording r ON r.take_id = t.id LEFT JOIN original o ON o.take_id = t.id
            WHERE t.author_id = #{personId} OR EXISTS (SELECT 1 FROM take_voice v WHERE v.take_id = t.id AND v.person_id = #{personId})
            ORDER BY t.id
            """)
    List<Take> takes(long personId);

    @Select("SELECT file_name AS fileName, bytes, begun_at AS begunAt FROM incoming_file WHERE author_id = #{personId} ORDER BY begun_at")
    List<Map<String, Object>> filesOnTheWay(long personId);

    @Select("""
            SELECT e.title AS episode, r.seq AS revision, r.edit, r.created_at AS madeAt FROM revision r JOIN episode e ON e.id = r.episode_id
            WHERE r.author_id = #{personId} ORDER BY r.episode_id, r.seq
            """)
    List<Map<String, Object>> edits(long personId);

    @Select("""
            SELECT e.title AS episode, h.number, h.created_at AS handedInAt FROM hand_in h JOIN episode e ON e.id = h.episode_id
            WHERE h.author_id = #{personId} ORDER BY h.id
            """)
    List<Map<String, Object>> handIns(long personId);

    @Select("""
            SELECT e.title AS episode, h.number AS handIn, n.kind, n.words, n.created_at AS writtenAt FROM margin_note n JOIN hand_in h ON h.id = n.hand_in_id
            JOIN episode e ON e.id = h.episode_id WHERE n.author_id = #{personId} ORDER BY n.id
            """)
    List<Map<String, Object>> notes(long personId);

    @Select("""
            SELECT e.title AS episode, n.words, n.done_at AS doneAt FROM margin_note n JOIN hand_in h ON h.id = n.hand_in_id
            JOIN episode e ON e.id = h.episode_id WHERE n.done_by = #{personId} ORDER BY n.id
            """)
    List<Map<String, Object>> notesDone(long personId);

    @Select("""
            SELECT e.title AS episode, r.words, r.written_at AS writtenAt FROM note_reply r JOIN margin_note n ON n.id = r.note_id JOIN hand_in h ON h.id = n.hand_in_id
            JOIN episode e ON e.id = h.episode_id WHERE r.author_id = #{personId} ORDER BY r.id
            """)
    List<Map<String, Object>> answers(long personId);

    @Select("""
            SELECT e.title AS episode, h.number AS handIn, s.start_frame AS startFrame, s.end_frame AS endFrame, s.heard_at AS heardAt FROM heard_span s
            JOIN hand_in h ON h.id = s.hand_in_id JOIN episode e ON e.id = h.episode_id WHERE s.person_id = #{personId} ORDER BY s.id
            """)
    List<Map<String, Object>> listened(long personId);

    @Select("""
            SELECT e.title AS episode, h.number AS handIn, m.criterion, m.points, m.most_points AS mostPoints, g.sent_at AS sentAt FROM mark m JOIN marking g ON g.hand_in_id = m.hand_in_id
            JOIN hand_in h ON h.id = m.hand_in_id JOIN episode e ON e.id = h.episode_id WHERE m.student_id = #{personId} AND g.sent_at IS NOT NULL ORDER BY m.id
            """)
    List<Map<String, Object>> marks(long personId);

    @Select("SELECT name, extent AS mayBeHeard, recorded_at AS recordedAt FROM guest WHERE recorded_by = #{personId} ORDER BY id")
    List<Map<String, Object>> guests(long personId);

    @Select("""
            SELECT t.name AS take, q.asked_at AS askedAt, q.answer FROM erase_request q JOIN take t ON t.id = q.take_id WHERE q.asked_by = #{personId} ORDER BY q.asked_at
            """)
    List<Map<String, Object>> eraseRequests(long personId);

    @Select("""
            SELECT a.name AS firstTake, b.name AS secondTake, l.asked_at AS askedAt FROM line_up l JOIN take a ON a.id = l.first_take JOIN take b ON b.id = l.second_take
            WHERE l.asked_by = #{personId} ORDER BY l.id
            """)
    List<Map<String, Object>> lineUps(long personId);

    @Select("SELECT at, kind, detail FROM security_event WHERE actor_id = #{personId} OR subject_id = #{personId} ORDER BY id")
    List<Map<String, Object>> log(long personId);

    /** The published episodes of somebody's crews. */
    @Select("""
            SELECT p.title, p.description, p.state, p.on_air_at AS onAirAt, p.off_air_at AS offAirAt FROM publication p JOIN episode e ON e.id = p.episode_id
            JOIN crew_member m ON m.crew_id = e.crew_id WHERE m.person_id = #{personId} ORDER BY p.id
            """)
    List<Map<String, Object>> onAir(long personId);

    /** A file that a take came back as. */
    record Returned(long id, String originalKey) {
    }

    @Select("SELECT id, original_key FROM returned_file WHERE take_id = #{takeId} ORDER BY id")
    List<Returned> returned(long takeId);
}

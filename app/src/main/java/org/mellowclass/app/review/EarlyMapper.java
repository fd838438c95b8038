package org.mellowclass.app.review;

import java.time.Instant;
import java.util.List;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface EarlyMapper {

    /** The other crews of its class, with the time until which each may listen; null where they may not. */
    @Select("""
            SELECT c.id, c.name, l.until_at FROM episode e JOIN crew own ON own.id = e.crew_id
            JOIN crew c ON c.class_id = own.class_id AND c.id <> own.id LEFT JOIN early_listener l ON l.episode_id = e.id AND l.crew_id = c.id AND l.until_at > #{now}
            WHERE e.id = #{episodeId} ORDER BY c.name
            """)
    List<EarlyListening.OtherCrew> others(long episodeId, Instant now);

    /** Invited again while it may listen, it has been invited since. */
    @Insert("""
            INSERT INTO early_listener (episode_id, crew_id, until_at, invited_at) VALUES (#{episodeId}, #{crewId}, #{until}, #{now})
            ON DUPLICATE KEY UPDATE invited_at = IF(until_at > #{now}, invited_at, #{now}), until_at = #{until}
            """)
    void invite(long episodeId, long crewId, Instant until, Instant now);

    @Delete("DELETE FROM early_listener WHERE episode_id = #{episodeId} AND crew_id = #{crewId}")
    void uninvite(long episodeId, long crewId);

    /** The newest hand-ins that can be heard, of the episodes to which somebody's crew is invited. */
    @Select("""
            SELECT h.id AS hand_in_id, e.title, owner.name AS crew_name, l.until_at, h.frames
            FROM crew_member m JOIN early_listener l ON l.crew_id = m.crew_id JOIN episode e ON e.id = l.episode_id JOIN crew owner ON owner.id = e.crew_id
            JOIN hand_in h ON h.episode_id = e.id AND h.state = 'READY' AND h.number = (SELECT max(o.number) FROM hand_in o WHERE o.episode_id = e.id AND o.state = 'READY')
            WHERE m.person_id = #{studentId} AND l.until_at > #{now} ORDER BY l.until_at, h.id
            """)
    List<EarlyListening.ToHear> toHear(long studentId, Instant now);

    @Select("SELECT n.id, n.kind, n.words, n.start_frame, n.end_frame FROM margin_note n WHERE n.hand_in_id = #{handInId} AND n.author_id = #{studentId} ORDER BY n.start_frame, n.id")
    List<EarlyListening.OwnNote> own(long handInId, long studentId);

    /** How many notes each student of a class has written to other crews. */
    @Select("""
            SELECT p.name AS student_name, count(*) AS notes FROM margin_note n JOIN person p ON p.id = n.author_id AND p.role = 'STUDENT'
            JOIN hand_in h ON h.id = n.hand_in_id JOIN episode e ON e.id = h.episode_id JOIN crew ON crew.id = e.crew_id
            WHERE crew.class_id = #{classId} GROUP BY p.id, p.name ORDER BY p.name
            """)
    List<EarlyListening.Written> written(long classId);
}

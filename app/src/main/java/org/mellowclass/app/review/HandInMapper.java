package org.mellowclass.app.review;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.app.store.NamedSounds;

@Mapper
interface HandInMapper extends NamedSounds {

    String HAND_IN = """
            SELECT id, episode_id, number, revision_seq, timeline_hash, author_id, state, sound_key, skyline_key, frames,
                   report, decision, sentence, decided_by, decided_at, created_at, new_frames, unheard_reason
            FROM hand_in
            """;

    @Insert("""
            INSERT INTO hand_in (episode_id, number, revision_seq, timeline_hash, author_id, state, frames, created_at, new_frames)
            SELECT #{episodeId}, coalesce(max(number), 0) + 1, #{revisionSeq}, #{timelineHash}, #{authorId}, 'MAKING',
                   #{frames}, #{createdAt}, #{newFrames}
            FROM hand_in WHERE episode_id = #{episodeId}
            """)
    void add(long episodeId, long revisionSeq, String timelineHash, long authorId, long frames, Instant createdAt, Long newFrames);

    @Select(HAND_IN + "WHERE id = #{id}")
    Optional<HandIn> find(long id);

    @Select(HAND_IN + "WHERE episode_id = #{episodeId} AND revision_seq = #{revisionSeq}")
    Optional<HandIn> ofRevision(long episodeId, long revisionSeq);

    @Select(HAND_IN + "WHERE episode_id = #{episodeId} ORDER BY number DESC")
    List<HandIn> ofEpisode(long episodeId);

    @Select(HAND_IN + "WHERE episode_id = #{episodeId} ORDER BY number DESC LIMIT 1")
    Optional<HandIn> newest(long episodeId);

    @Select(HAND_IN + """
            WHERE (episode_id, number) IN (
              SELECT h.episode_id, max(h.number)
              FROM hand_in h JOIN episode ON episode.id = h.episode_id JOIN crew ON crew.id = episode.crew_id
              WHERE crew.class_id = #{classId} GROUP BY h.episode_id)
            """)
    List<HandIn> newestOfClass(long classId);

    /** A hand-in that a teacher has to hear: the newest of its episode, ready and not decided. */
    @Select("""
            SELECT h.id, h.episode_id, h.number, h.frames, h.new_frames, h.report, h.created_at, e.title, crew.name AS crew_name
            FROM hand_in h JOIN episode e ON e.id = h.episode_id JOIN crew ON crew.id = e.crew_id
            WHERE crew.class_id = #{classId} AND h.state = 'READY' AND h.decision IS NULL
              AND h.number = (SELECT max(o.number) FROM hand_in o WHERE o.episode_id = h.episode_id)
            ORDER BY h.created_at, h.id
            """)
    List<HandIns.Row> waiting(long classId);

    @Select("SELECT crew.name FROM crew JOIN episode e ON e.crew_id = crew.id WHERE e.id = #{episodeId}")
    String crewName(long episodeId);

    @Update("""
            UPDATE hand_in SET state = 'READY', sound_key = #{soundKey}, skyline_key = #{skylineKey}, report = #{report}
            WHERE id = #{id} AND state = 'MAKING'
            """)
    int ready(long id, String soundKey, String skylineKey, String report);

    @Update("UPDATE hand_in SET state = 'FAILED' WHERE id = #{id} AND state = 'MAKING'")
    void failed(long id);

    @Update("""
            UPDATE hand_in SET state = 'MAKING', sound_key = NULL, skyline_key = NULL, report = NULL, decision = NULL, sentence = NULL,
                   decided_by = NULL, decided_at = NULL, unheard_reason = NULL
            WHERE id = #{id}
            """)
    void makeAgain(long id);

    @Update("UPDATE hand_in SET timeline_hash = #{after} WHERE episode_id = #{episodeId} AND timeline_hash = #{before}")
    void retell(long episodeId, String before, String after);

    @Update("UPDATE hand_in SET state = 'MAKING' WHERE id = #{id} AND state = 'FAILED'")
    int again(long id);

    @Update("""
            UPDATE hand_in SET decision = #{decision}, sentence = #{sentence}, decided_by = #{teacherId}, decided_at = #{at}
            WHERE id = #{id}
            """)
    void decide(long id, HandIn.Decision decision, String sentence, long teacherId, Instant at);

    @Override
    @Select("""
            SELECT h.sound_key FROM hand_in h WHERE h.sound_key IS NOT NULL
            UNION ALL SELECT h.skyline_key FROM hand_in h WHERE h.skyline_key IS NOT NULL
            """)
    Set<String> keys();

    @Override
    @Select("""
            SELECT h.sound_key FROM hand_in h WHERE h.episode_id = #{episodeId} AND h.sound_key IS NOT NULL
            UNION ALL SELECT h.skyline_key FROM hand_in h WHERE h.episode_id = #{episodeId} AND h.skyline_key IS NOT NULL
            """)
    Set<String> keysOfEpisode(long episodeId);

    @Override
    @Select("""
            SELECT h.sound_key FROM hand_in h JOIN episode e ON e.id = h.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} AND h.sound_key IS NOT NULL
            UNION ALL SELECT h.skyline_key FROM hand_in h JOIN episode e ON e.id = h.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} AND h.skyline_key IS NOT NULL
            """)
    Set<String> keysOfClass(long classId);

    @Insert("""
            INSERT INTO let_through (hand_in_id, kind, reason, person_id, let_at) VALUES (#{handInId}, #{kind}, #{reason}, #{personId}, #{at})
            ON DUPLICATE KEY UPDATE reason = #{reason}, person_id = #{personId}, let_at = #{at}
            """)
    void letThrough(long handInId, Reading.Kind kind, String reason, long personId, Instant at);

    @Select("""
            SELECT l.kind, l.reason, p.name AS person_name FROM let_through l JOIN person p ON p.id = l.person_id
            WHERE l.hand_in_id = #{handInId} ORDER BY l.kind
            """)
    List<HandIns.LetThrough> lettingThrough(long handInId);

    @Delete("DELETE FROM let_through WHERE hand_in_id = #{handInId}")
    void forgetLettingThrough(long handInId);

    @Select("SELECT c.class_id FROM hand_in h JOIN episode e ON e.id = h.episode_id JOIN crew c ON c.id = e.crew_id WHERE h.id = #{handInId}")
    long classOf(long handInId);
}

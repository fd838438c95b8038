package org.mellowclass.app.lineup;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.core.measure.LineUp;

@Mapper
interface LineUpMapper {

    String LINE_UP = """
            SELECT id, episode_id, first_take, second_take, state, offset_frames, drift_ppm, confidence, reason, lays_itself, laid_at, asked_by
            FROM line_up
            """;

    /** A pair that is there already stays as it is, but one that could not be compared is compared again. */
    @Insert("""
            INSERT INTO line_up (episode_id, first_take, second_take, state, lays_itself, asked_by, asked_at)
            VALUES (#{episodeId}, #{firstTake}, #{secondTake}, 'MEASURING', #{laysItself}, #{askedBy}, #{at})
            ON DUPLICATE KEY UPDATE state = IF(state = 'FAILED', 'MEASURING', state)
            """)
    void add(long episodeId, long firstTake, long secondTake, boolean laysItself, long askedBy, Instant at);

    @Select(LINE_UP + "WHERE first_take = #{firstTake} AND second_take = #{secondTake}")
    Optional<LinedUp> ofPair(long firstTake, long secondTake);

    @Select(LINE_UP + "WHERE id = #{id}")
    Optional<LinedUp> find(long id);

    @Select(LINE_UP + "WHERE id = #{id} FOR UPDATE")
    Optional<LinedUp> lock(long id);

    @Select(LINE_UP + "WHERE episode_id = #{episodeId} ORDER BY id DESC")
    List<LinedUp> ofEpisode(long episodeId);

    @Update("""
            UPDATE line_up SET state = 'MATCHED', offset_frames = #{offsetFrames}, drift_ppm = #{driftPpm}, confidence = #{confidence}
            WHERE id = #{id} AND state = 'MEASURING'
            """)
    int matched(long id, long offsetFrames, Double driftPpm, double confidence);

    @Update("UPDATE line_up SET state = 'REFUSED', reason = #{reason}, confidence = #{confidence} WHERE id = #{id} AND state = 'MEASURING'")
    int refused(long id, LineUp.Reason reason, Double confidence);

    @Update("UPDATE line_up SET state = 'FAILED' WHERE id = #{id} AND state = 'MEASURING'")
    int failed(long id);

    @Update("UPDATE line_up SET laid_at = #{at} WHERE id = #{id}")
    void laid(long id, Instant at);
}

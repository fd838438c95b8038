package org.mellowclass.app.erasing;

import java.time.Instant;
import java.util.List;
import java.util.Set;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface EraseRequestMapper {

    @Insert("INSERT IGNORE INTO erase_request (take_id, asked_by, asked_at) VALUES (#{takeId}, #{askedBy}, #{at})")
    void ask(long takeId, long askedBy, Instant at);

    @Select("""
            SELECT q.take_id, t.episode_id, t.name AS take_name, crew.name AS crew_name, p.name AS asked_by, q.asked_at
            FROM erase_request q JOIN take t ON t.id = q.take_id JOIN episode e ON e.id = t.episode_id
            JOIN crew ON crew.id = e.crew_id JOIN person p ON p.id = q.asked_by
            WHERE crew.class_id = #{classId} AND q.answer IS NULL ORDER BY q.asked_at
            """)
    List<Erasing.Request> ofClass(long classId);

    @Select("""
            SELECT q.take_id FROM erase_request q JOIN take t ON t.id = q.take_id
            WHERE t.episode_id = #{episodeId} AND q.answer IS NULL
            """)
    Set<Long> ofEpisode(long episodeId);

    @Update("""
            UPDATE erase_request SET answer = #{answer}, answered_by = #{by}, answered_at = #{at}
            WHERE take_id = #{takeId} AND answer IS NULL
            """)
    int answer(long takeId, String answer, long by, Instant at);
}

package org.mellowclass.app.review;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface MarksMapper {

    /** A teacher's words on a hand-in as a whole; a draft as long as it has not been sent. */
    record Marking(long handInId, String summary, Instant sentAt) {
    }

    @Select("SELECT hand_in_id, summary, sent_at FROM marking WHERE hand_in_id = #{handInId}")
    Optional<Marking> marking(long handInId);

    /** What has been sent once stays sent: what is corrected is seen at once. */
    @Insert("""
            INSERT INTO marking (hand_in_id, teacher_id, summary, saved_at, sent_at) VALUES (#{handInId}, #{teacherId}, #{summary}, #{at}, #{sentAt})
            ON DUPLICATE KEY UPDATE teacher_id = #{teacherId}, summary = #{summary}, saved_at = #{at}, sent_at = coalesce(sent_at, #{sentAt})
            """)
    void save(long handInId, long teacherId, String summary, Instant at, Instant sentAt);

    @Delete("DELETE FROM mark WHERE hand_in_id = #{handInId}")
    void forgetPoints(long handInId);

    @Delete("DELETE FROM mark_place WHERE hand_in_id = #{handInId}")
    void forgetPlaces(long handInId);

    @Insert("INSERT INTO mark_place (hand_in_id, position, start_frame, end_frame) VALUES (#{handInId}, #{place.position}, #{place.startFrame}, #{place.endFrame})")
    void addPlace(long handInId, Marks.Place place);

    @Select("SELECT position, start_frame, end_frame FROM mark_place WHERE hand_in_id = #{handInId} ORDER BY position, start_frame")
    List<Marks.Place> places(long handInId);

    @Insert("""
            INSERT INTO mark (hand_in_id, student_id, position, criterion, most_points, points, level, sentence)
            VALUES (#{handInId}, #{mark.studentId}, #{mark.position}, #{mark.criterion}, #{mark.mostPoints}, #{mark.points}, #{mark.level}, #{mark.sentence})
            """)
    void add(long handInId, Marks.Mark mark);

    @Select("SELECT student_id, position, criterion, most_points, points, level, sentence FROM mark WHERE hand_in_id = #{handInId} ORDER BY position, id")
    List<Marks.Mark> of(long handInId);

    @Select("""
            SELECT crew.id AS crew_id, crew.name AS crew_name, e.title, h.id AS hand_in_id, h.number, p.name AS student_name, m.position, m.criterion, m.most_points, m.points,
                   m.level, CASE WHEN m.student_id IS NULL THEN (SELECT group_concat(concat(round(l.start_frame / #{rate}, 2), '-', round(l.end_frame / #{rate}, 2)) ORDER BY l.start_frame SEPARATOR ' ')
                     FROM mark_place l WHERE l.hand_in_id = m.hand_in_id AND l.position = m.position) END AS places, m.sentence, g.summary, g.sent_at
            FROM mark m JOIN marking g ON g.hand_in_id = m.hand_in_id JOIN hand_in h ON h.id = m.hand_in_id JOIN episode e ON e.id = h.episode_id
            JOIN crew ON crew.id = e.crew_id LEFT JOIN person p ON p.id = m.student_id
            WHERE crew.class_id = #{classId} ORDER BY crew.name, h.number, m.position, p.name
            """)
    List<Marks.OfClass> ofClass(long classId, int rate);
}

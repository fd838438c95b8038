package org.mellowclass.app.keeping;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.keeping.Keeping.Kept;

@Mapper
interface KeepingMapper {

    String KEPT = "SELECT c.id, c.school_id, c.name, s.time_zone, c.keep_until, c.gone_at FROM school_class c JOIN school s ON s.id = c.school_id ";
    String TAUGHT = "JOIN class_teacher t ON t.class_id = c.id AND t.person_id = #{teacherId} ";

    @Select(KEPT + TAUGHT + "WHERE c.id = #{classId}")
    Optional<Kept> taught(long teacherId, long classId);

    @Select(KEPT + TAUGHT + "WHERE c.gone_at IS NOT NULL OR c.keep_until < #{soon} ORDER BY c.name")
    List<Kept> going(long teacherId, LocalDate soon);

    @Update("UPDATE school_class SET keep_until = #{day}, warned_at = NULL WHERE id = #{classId} AND gone_at IS NULL")
    void keepUntil(long classId, LocalDate day);

    @Update("UPDATE school_class SET gone_at = #{at} WHERE id = #{classId} AND gone_at IS NULL")
    int hide(long classId, Instant at);

    @Update("UPDATE school_class SET gone_at = NULL, warned_at = NULL, keep_until = greatest(keep_until, #{atLeast}) WHERE id = #{classId} AND gone_at IS NOT NULL")
    int takeBack(long classId, LocalDate atLeast);

    @Select(KEPT + "WHERE c.gone_at IS NULL AND c.warned_at IS NULL AND c.keep_until < #{soon}")
    List<Kept> toWarn(LocalDate soon);

    @Update("UPDATE school_class SET warned_at = #{at} WHERE id = #{classId} AND warned_at IS NULL")
    int warned(long classId, Instant at);

    /** Of somebody who teaches a class. */
    record Teacher(long id, String email) {
    }

    @Select("SELECT p.id, p.email FROM person p JOIN class_teacher t ON t.person_id = p.id WHERE t.class_id = #{classId} ORDER BY p.id")
    List<Teacher> teachers(long classId);

    @Select(KEPT + "WHERE c.gone_at IS NULL AND c.keep_until < #{today}")
    List<Kept> over(LocalDate today);

    /** The students of a class and those who teach it. */
    @Select("SELECT person_id FROM class_student WHERE class_id = #{classId} UNION SELECT person_id FROM class_teacher WHERE class_id = #{classId}")
    List<Long> people(long classId);

    @Select("SELECT gone_at FROM school WHERE id = #{schoolId}")
    Optional<Instant> schoolGoneAt(long schoolId);

    @Update("UPDATE school SET gone_at = #{at} WHERE id = #{schoolId} AND gone_at IS NULL")
    int hideSchool(long schoolId, Instant at);

    @Update("UPDATE school SET gone_at = NULL WHERE id = #{schoolId}")
    int takeSchoolBack(long schoolId);

    @Select("SELECT id FROM school_class WHERE gone_at < #{before}")
    List<Long> classesGoneBefore(Instant before);

    @Select("SELECT id FROM school WHERE gone_at < #{before}")
    List<Long> schoolsGoneBefore(Instant before);
}

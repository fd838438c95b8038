package org.mellowclass.app.erasing;

import java.util.List;
import java.util.Set;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/**
 * The rows of a class, and of a school, that are deleted. The foreign keys see to it that no table is forgotten: what still names a row keeps it
 * from being deleted.
 */
@Mapper
interface ClassMapper {

    String CREWS = "(SELECT id FROM crew WHERE class_id = #{classId})";
    String EPISODES = "(SELECT e.id FROM episode e JOIN crew ON crew.id = e.crew_id WHERE crew.class_id = #{classId})";
    String TAKES = "(SELECT t.id FROM take t JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id WHERE crew.class_id = #{classId})";
    String HAND_INS = "(SELECT h.id FROM hand_in h JOIN episode e ON e.id = h.episode_id JOIN crew ON crew.id = e.crew_id WHERE crew.class_id = #{classId})";

    @Select("SELECT school_id FROM school_class WHERE id = #{classId} FOR UPDATE")
    List<Long> lockedSchoolOf(long classId);

    @Select("SELECT id FROM school WHERE id = #{schoolId}")
    List<Long> school(long schoolId);

    @Select("SELECT id FROM school_class WHERE school_id = #{schoolId}")
    List<Long> classes(long schoolId);

    @Select("SELECT DISTINCT timeline_hash FROM revision WHERE episode_id IN " + EPISODES)
    Set<String> timelines(long classId);

    /** Everybody who was in a class or has worked in it. */
    @Select("SELECT person_id FROM class_student WHERE class_id = #{classId} UNION SELECT author_id FROM take WHERE id IN " + TAKES
            + " UNION SELECT person_id FROM take_voice WHERE person_id IS NOT NULL AND take_id IN " + TAKES
            + " UNION SELECT author_id FROM revision WHERE author_id IS NOT NULL AND episode_id IN " + EPISODES)
    Set<Long> people(long classId);

    /** Whether somebody is a student who is in no class. */
    @Select("""
            SELECT EXISTS (SELECT 1 FROM person p WHERE p.id = #{personId} AND p.role = 'STUDENT' AND NOT p.nobody
              AND NOT EXISTS (SELECT 1 FROM class_student s WHERE s.person_id = p.id))
            """)
    boolean inNoClass(long personId);

    @Delete("DELETE FROM margin_note WHERE hand_in_id IN " + HAND_INS)
    void notes(long classId);

    @Delete("DELETE FROM publication WHERE episode_id IN " + EPISODES)
    void publications(long classId);

    @Delete("DELETE FROM hand_in WHERE episode_id IN " + EPISODES)
    void handIns(long classId);

    @Delete("DELETE FROM revision WHERE episode_id IN " + EPISODES)
    void revisions(long classId);

    @Delete("DELETE FROM take_chunk WHERE take_id IN " + TAKES)
    void chunks(long classId);

    @Delete("DELETE FROM take_voice WHERE take_id IN " + TAKES)
    void voices(long classId);

    @Delete("DELETE FROM take_flag WHERE take_id IN " + TAKES)
    void flags(long classId);

    @Delete("DELETE FROM erase_request WHERE take_id IN " + TAKES)
    void eraseRequests(long classId);

    @Delete("DELETE FROM line_up WHERE episode_id IN " + EPISODES)
    void lineUps(long classId);

    @Select("SELECT arriving FROM incoming_file WHERE episode_id IN " + EPISODES)
    List<String> pathsOnTheWay(long classId);

    @Select("SELECT id FROM episode WHERE crew_id IN " + CREWS)
    List<Long> episodeIds(long classId);

    @Delete("DELETE FROM incoming_file WHERE episode_id IN " + EPISODES)
    void filesOnTheWay(long classId);

    /** With their sounds, findings, originals and recordings. */
    @Delete("DELETE FROM take WHERE episode_id IN " + EPISODES)
    void takes(long classId);

    @Delete("DELETE FROM part_owner WHERE episode_id IN " + EPISODES)
    void partOwners(long classId);

    @Delete("DELETE FROM episode WHERE crew_id IN " + CREWS)
    void episodes(long classId);

    @Delete("DELETE FROM guest WHERE crew_id IN " + CREWS)
    void guests(long classId);

    @Delete("DELETE FROM crew_member WHERE crew_id IN " + CREWS)
    void crewMembers(long classId);

    @Delete("DELETE FROM recording_round WHERE class_id = #{classId}")
    void round(long classId);

    @Delete("DELETE FROM crew WHERE class_id = #{classId}")
    void crews(long classId);

    @Delete("DELETE FROM brief_clip WHERE class_id = #{classId}")
    void briefClips(long classId);

    @Delete("DELETE FROM brief_line WHERE class_id = #{classId}")
    void briefLines(long classId);

    @Delete("DELETE FROM brief_criterion WHERE class_id = #{classId}")
    void briefCriteria(long classId);

    @Delete("DELETE FROM brief_part WHERE class_id = #{classId}")
    void briefParts(long classId);

    @Delete("DELETE FROM brief WHERE class_id = #{classId}")
    void brief(long classId);

    @Delete("DELETE FROM shelf_excerpt WHERE sound_id IN (SELECT id FROM shelf_sound WHERE class_id = #{classId})")
    void excerpts(long classId);

    @Delete("DELETE FROM shelf_sound WHERE class_id = #{classId}")
    void shelf(long classId);

    @Delete("DELETE FROM air_rule WHERE class_id = #{classId}")
    void airRule(long classId);

    @Delete("DELETE FROM let_through WHERE hand_in_id IN " + HAND_INS)
    void lettingThrough(long classId);

    @Delete("DELETE FROM class_recipe WHERE class_id = #{classId}")
    void recipes(long classId);

    @Delete("DELETE FROM feed WHERE class_id = #{classId}")
    void feed(long classId);

    @Delete("DELETE FROM join_request WHERE class_id = #{classId}")
    void joinRequests(long classId);

    @Delete("DELETE FROM invitation WHERE class_id = #{classId}")
    void invitations(long classId);

    @Delete("DELETE FROM class_teacher WHERE class_id = #{classId}")
    void teachers(long classId);

    @Delete("DELETE FROM class_student WHERE class_id = #{classId}")
    void students(long classId);

    @Delete("DELETE FROM school_class WHERE id = #{classId}")
    void schoolClass(long classId);

    default void delete(long classId) {
        notes(classId);
        publications(classId);
        lettingThrough(classId);
        handIns(classId);
        revisions(classId);
        chunks(classId);
        voices(classId);
        flags(classId);
        eraseRequests(classId);
        lineUps(classId);
        filesOnTheWay(classId);
        takes(classId);
        partOwners(classId);
        episodes(classId);
        guests(classId);
        crewMembers(classId);
        round(classId);
        crews(classId);
        briefClips(classId);
        briefLines(classId);
        briefCriteria(classId);
        briefParts(classId);
        brief(classId);
        excerpts(classId);
        shelf(classId);
        recipes(classId);
        airRule(classId);
        feed(classId);
        joinRequests(classId);
        invitations(classId);
        teachers(classId);
        students(classId);
        schoolClass(classId);
    }

    @Delete("DELETE FROM mail WHERE school_id = #{schoolId}")
    void mails(long schoolId);

    @Delete("DELETE FROM invitation WHERE school_id = #{schoolId}")
    void invitationsOfSchool(long schoolId);

    @Delete("DELETE FROM security_event WHERE school_id = #{schoolId}")
    void events(long schoolId);

    @Delete("DELETE c FROM consent c JOIN person p ON p.id = c.person_id WHERE p.school_id = #{schoolId}")
    void consents(long schoolId);

    @Delete("DELETE k FROM known_laptop k JOIN person p ON p.id = k.person_id WHERE p.school_id = #{schoolId}")
    void laptops(long schoolId);

    @Delete("DELETE FROM person WHERE school_id = #{schoolId}")
    void persons(long schoolId);

    @Delete("DELETE FROM school WHERE id = #{schoolId}")
    void deleteSchool(long schoolId);

    /** A school whose classes are gone. */
    default void deleteEmpty(long schoolId) {
        mails(schoolId);
        invitationsOfSchool(schoolId);
        events(schoolId);
        consents(schoolId);
        laptops(schoolId);
        persons(schoolId);
        deleteSchool(schoolId);
    }

    // An id that was erased is never given again after a backup from before it was restored: the journal would erase what has it now.

    @Update("ALTER TABLE take AUTO_INCREMENT = ${least}")
    void takeIdsFrom(long least);

    @Update("ALTER TABLE person AUTO_INCREMENT = ${least}")
    void personIdsFrom(long least);

    @Update("ALTER TABLE school_class AUTO_INCREMENT = ${least}")
    void classIdsFrom(long least);

    @Update("ALTER TABLE school AUTO_INCREMENT = ${least}")
    void schoolIdsFrom(long least);
}

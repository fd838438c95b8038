package org.mellowclass.app.roster;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.people.Consent;

@Mapper
interface RosterMapper {

    @Select("""
            SELECT p.id, p.name, coalesce(p.student_number, '') AS number, p.on_air_name, IF(s.home, p.fresh_passphrase, NULL) AS fresh_passphrase, s.home,
                   crew.id AS crew_id, crew.name AS crew_name, c.extent AS consent, c.said_by AS consent_said_by, r.name AS consent_by, c.recorded_at AS consent_at
            FROM class_student s JOIN person p ON p.id = s.person_id
            LEFT JOIN (crew_member m JOIN crew ON crew.id = m.crew_id) ON m.person_id = p.id AND crew.class_id = s.class_id
            LEFT JOIN consent c ON c.id = (SELECT max(id) FROM consent WHERE person_id = p.id)
            LEFT JOIN person r ON r.id = c.recorded_by
            WHERE s.class_id = #{classId} ORDER BY p.name, p.id
            """)
    List<Student> students(long classId);

    @Select("""
            SELECT p.id, coalesce(p.student_number, '') AS number, p.name, p.on_air_name, coalesce(min(crew.name), '') AS crew,
                   (SELECT extent FROM consent WHERE person_id = p.id ORDER BY id DESC LIMIT 1) AS consent,
                   EXISTS (SELECT 1 FROM class_student h WHERE h.person_id = p.id AND h.class_id = #{classId}) AS in_this_class,
                   coalesce((SELECT group_concat(c.name ORDER BY c.name SEPARATOR ', ') FROM class_student o
                     JOIN school_class c ON c.id = o.class_id WHERE o.person_id = p.id), '') AS classes,
                   NOT EXISTS (SELECT 1 FROM class_student o WHERE o.person_id = p.id)
                   OR EXISTS (SELECT 1 FROM class_student o JOIN class_teacher t ON t.class_id = o.class_id
                     WHERE o.person_id = p.id AND t.person_id = #{viewerId}) AS free
            FROM person p
            LEFT JOIN (crew_member m JOIN crew ON crew.id = m.crew_id AND crew.class_id = #{classId}) ON m.person_id = p.id
            WHERE p.school_id = #{schoolId} AND p.role = 'STUDENT' AND NOT p.nobody GROUP BY p.id ORDER BY p.id
            """)
    List<RosterPlan.Known> knownOfSchool(long schoolId, long classId, long viewerId);

    @Select("""
            SELECT crew.id, crew.name, e.id AS episode_id, e.title,
                   EXISTS (SELECT 1 FROM take t WHERE t.episode_id = e.id AND t.origin <> 'SHELF')
                   OR EXISTS (SELECT 1 FROM revision r WHERE r.episode_id = e.id AND r.seq > 1) AS touched
            FROM crew JOIN episode e ON e.crew_id = crew.id WHERE crew.class_id = #{classId} ORDER BY crew.id
            """)
    List<Crew> crews(long classId);

    @Select("SELECT class_id FROM crew WHERE id = #{crewId}")
    Optional<Long> classOfCrew(long crewId);

    @Update("""
            UPDATE person SET name = #{name}, student_number = #{number}, on_air_name = #{onAirName} WHERE id = #{id}
            """)
    void change(long id, String name, String number, String onAirName);

    @Update("UPDATE person SET secret_hash = #{secretHash}, fresh_passphrase = #{passphrase} WHERE id = #{id}")
    void newPassphrase(long id, String passphrase, String secretHash);

    /** The first class of a student is their home class. */
    @Insert("""
            INSERT IGNORE INTO class_student (class_id, person_id, home)
            SELECT #{classId}, #{personId}, NOT EXISTS (SELECT 1 FROM class_student o WHERE o.person_id = #{personId})
            """)
    void joinClass(long classId, long personId);

    @Delete("DELETE FROM class_student WHERE class_id = #{classId} AND person_id = #{personId}")
    void leaveClass(long classId, long personId);

    @Delete("""
            DELETE m FROM crew_member m JOIN crew ON crew.id = m.crew_id
            WHERE crew.class_id = #{classId} AND m.person_id = #{personId}
            """)
    void leaveCrews(long classId, long personId);

    @Delete("""
            DELETE o FROM part_owner o JOIN episode e ON e.id = o.episode_id JOIN crew ON crew.id = e.crew_id
            WHERE crew.class_id = #{classId} AND o.person_id = #{personId}
            """)
    void giveBackParts(long classId, long personId);

    @Insert("INSERT IGNORE INTO crew_member (crew_id, person_id) VALUES (#{crewId}, #{personId})")
    void joinCrew(long crewId, long personId);

    @Update("UPDATE crew SET name = #{name} WHERE id = #{crewId}")
    void nameCrew(long crewId, String name);

    @Update("UPDATE episode SET title = #{title} WHERE crew_id = #{crewId}")
    void titleEpisode(long crewId, String title);

    @Delete("DELETE FROM crew_member WHERE crew_id = #{crewId}")
    void emptyCrew(long crewId);

    @Delete("DELETE FROM part_owner WHERE episode_id = #{episodeId}")
    void emptyParts(long episodeId);

    @Delete("DELETE FROM take WHERE episode_id = #{episodeId} AND origin = 'SHELF'")
    void deleteShelfTakes(long episodeId);

    @Delete("DELETE FROM revision WHERE episode_id = #{episodeId}")
    void deleteRevisions(long episodeId);

    @Delete("DELETE FROM episode WHERE id = #{episodeId}")
    void deleteEpisode(long episodeId);

    @Delete("DELETE FROM crew WHERE id = #{crewId}")
    void deleteCrew(long crewId);

    @Insert("""
            INSERT INTO consent (person_id, extent, said_by, recorded_by, recorded_at) VALUES (#{personId}, #{extent}, #{saidBy}, #{recordedBy}, #{at})
            """)
    void addConsent(long personId, Consent extent, String saidBy, long recordedBy, Instant at);

    /** One entry of the history of a student's consent. */
    record Recorded(Consent extent, String saidBy, String by, Instant at) {
    }

    @Select("""
            SELECT c.extent, c.said_by, p.name AS `by`, c.recorded_at AS at FROM consent c JOIN person p ON p.id = c.recorded_by
            WHERE c.person_id = #{personId} ORDER BY c.id DESC
            """)
    List<Recorded> consents(long personId);

    @Select("SELECT count(*) FROM school_class WHERE code = #{code}")
    int classesWithCode(String code);

    /** Another class of a student who has left is their home class then. */
    @Update("""
            UPDATE class_student s JOIN (SELECT min(class_id) AS class_id FROM class_student WHERE person_id = #{personId}) first ON first.class_id = s.class_id
            SET s.home = TRUE WHERE s.person_id = #{personId} AND NOT EXISTS (SELECT 1 FROM (SELECT * FROM class_student) o WHERE o.person_id = #{personId} AND o.home)
            """)
    void findHome(long personId);

    @Insert("INSERT IGNORE INTO join_request (class_id, person_id, asked_by, asked_at) VALUES (#{classId}, #{personId}, #{by}, #{at})")
    void askToJoin(long classId, long personId, long by, Instant at);

    @Delete("DELETE FROM join_request WHERE class_id = #{classId} AND person_id = #{personId}")
    int answered(long classId, long personId);

    /** What teachers of a class are asked about its students. */
    @Select("""
            SELECT j.class_id, c.name AS class_name, j.person_id, p.name, a.name AS asked_by
            FROM join_request j JOIN class_student s ON s.person_id = j.person_id AND s.class_id = #{classId}
            JOIN school_class c ON c.id = j.class_id JOIN person p ON p.id = j.person_id JOIN person a ON a.id = j.asked_by
            ORDER BY j.asked_at
            """)
    List<JoinRequest> joinRequests(long classId);
}

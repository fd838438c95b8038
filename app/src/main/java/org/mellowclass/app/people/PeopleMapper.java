package org.mellowclass.app.people;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface PeopleMapper {

    String PERSON = "SELECT p.id, p.school_id, p.role, p.name FROM person p ";
    String WITH_SECRET = "SELECT p.id, p.school_id, p.role, p.name, p.secret_hash FROM person p ";
    String SCHOOL_CLASS = """
            SELECT c.id, c.school_id, s.name AS school_name, s.time_zone, c.name, c.code
            FROM school_class c JOIN school s ON s.id = c.school_id AND s.gone_at IS NULL AND c.gone_at IS NULL
            """;
    String EPISODE = """
            SELECT e.id, e.title, e.crew_id, crew.name AS crew_name, crew.class_id
            FROM episode e JOIN crew ON crew.id = e.crew_id JOIN school_class c ON c.id = crew.class_id AND c.gone_at IS NULL
            JOIN school s ON s.id = c.school_id AND s.gone_at IS NULL
            """;

    /** A person with the hash of what they sign in with. */
    record WithSecret(long id, long schoolId, Person.Role role, String name, String secretHash) {
        Person person() {
            return new Person(id, schoolId, role, name);
        }
    }

    /** Of a school that goes, only its lead comes in: to take it back. */
    @Select(WITH_SECRET + """
            JOIN school s ON s.id = p.school_id AND (s.gone_at IS NULL OR p.is_lead)
            WHERE p.email = #{email} AND BINARY p.email = #{email} AND p.role = 'TEACHER'
            """)
    Optional<WithSecret> teacherByEmail(String email);

    @Select(WITH_SECRET + "WHERE p.id = #{id}")
    Optional<WithSecret> withSecret(long id);

    @Select(PERSON + "WHERE p.id = #{id}")
    Optional<Person> person(long id);

    @Select("SELECT email FROM person WHERE id = #{id}")
    Optional<String> emailOf(long id);

    @Update("UPDATE person SET secret_hash = #{hash} WHERE id = #{id}")
    void setSecret(long id, String hash);

    @Update("""
            UPDATE person p SET p.is_lead = TRUE WHERE p.id = #{id}
              AND NOT EXISTS (SELECT 1 FROM (SELECT school_id FROM person WHERE is_lead) l WHERE l.school_id = #{schoolId})
            """)
    void leadsIfFirst(long schoolId, long id);

    @Select("SELECT is_lead FROM person WHERE id = #{id}")
    boolean leads(long id);

    @Select(PERSON + "WHERE p.school_id = #{schoolId} AND p.is_lead ORDER BY p.id LIMIT 1")
    Person lead(long schoolId);

    @Select(WITH_SECRET + """
            JOIN class_student s ON s.person_id = p.id
            JOIN school_class c ON c.id = s.class_id AND c.gone_at IS NULL
            JOIN school ON school.id = c.school_id AND school.gone_at IS NULL
            WHERE c.code = #{code} AND BINARY c.code = #{code} AND p.role = 'STUDENT' AND #{name} =
            """ + Evened.NAME_IN_SQL)
    List<WithSecret> students(String code, String name);

    @Select(SCHOOL_CLASS + "JOIN class_teacher t ON t.class_id = c.id WHERE t.person_id = #{teacherId} ORDER BY c.name")
    List<SchoolClass> classesOf(long teacherId);

    @Select(SCHOOL_CLASS + """
            JOIN class_teacher t ON t.class_id = c.id WHERE t.person_id = #{teacherId} AND c.id = #{classId}
            """)
    Optional<SchoolClass> taughtClass(long teacherId, long classId);

    @Select(SCHOOL_CLASS + """
            JOIN class_student t ON t.class_id = c.id WHERE t.person_id = #{studentId} AND c.id = #{classId}
            """)
    Optional<SchoolClass> classOfStudent(long studentId, long classId);

    /** Not the one for practice. */
    @Select(EPISODE + "JOIN crew_member m ON m.crew_id = crew.id WHERE m.person_id = #{studentId} AND NOT c.practice ORDER BY e.id")
    List<Episode> episodesOf(long studentId);

    @Select(EPISODE + """
            JOIN crew_member m ON m.crew_id = crew.id WHERE m.person_id = #{studentId} AND e.id = #{episodeId}
            """)
    Optional<Episode> episodeOfMember(long studentId, long episodeId);

    @Select("SELECT EXISTS (SELECT 1 FROM school_class WHERE id = #{classId} AND practice)")
    boolean isPractice(long classId);

    @Select(EPISODE + """
            JOIN class_teacher t ON t.class_id = crew.class_id WHERE t.person_id = #{teacherId} AND e.id = #{episodeId}
            """)
    Optional<Episode> episodeOfTeacher(long teacherId, long episodeId);

    @Select("SELECT id FROM episode WHERE id = #{episodeId} FOR UPDATE")
    Long lockEpisode(long episodeId);

    @Select(PERSON + "JOIN crew_member m ON m.person_id = p.id WHERE m.crew_id = #{crewId} ORDER BY p.name")
    List<Person> members(long crewId);

    /** A new row, whose id the database gives. */
    final class NewRow {
        private long id;

        long id() {
            return id;
        }

        public void setId(long id) {
            this.id = id;
        }

        public long getId() {
            return id;
        }
    }

    @Insert("INSERT INTO school (name, time_zone) VALUES (#{name}, #{timeZone})")
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void addSchool(NewRow row, String name, String timeZone);

    @Insert("""
            INSERT INTO person (school_id, role, name, email, secret_hash, on_air_name)
            VALUES (#{schoolId}, #{role}, #{name}, #{email}, #{secretHash}, #{onAirName})
            """)
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void addPerson(NewRow row, long schoolId, Person.Role role, String name, String email, String secretHash,
                   String onAirName);

    @Update("UPDATE first_start SET school_id = #{schoolId} WHERE id = 1 AND school_id IS NULL")
    int firstStartDone(long schoolId);

    @Select("SELECT EXISTS (SELECT 1 FROM school_class WHERE code = #{code} AND BINARY code = #{code})")
    boolean classCodeExists(String code);

    @Select(PERSON + """
            JOIN class_teacher t ON t.person_id = p.id JOIN crew ON crew.class_id = t.class_id JOIN episode e ON e.crew_id = crew.id
            WHERE e.id = #{episodeId} ORDER BY p.id LIMIT 1
            """)
    Optional<Person> teacherOfEpisode(long episodeId);

    @Select("SELECT person_id FROM known_laptop WHERE laptop = #{laptop}")
    Set<Long> knownOnLaptop(String laptop);

    @Insert("""
            INSERT INTO known_laptop (laptop, person_id, last_at) VALUES (#{laptop}, #{personId}, #{at})
            ON DUPLICATE KEY UPDATE last_at = #{at}
            """)
    void rememberLaptop(String laptop, long personId, Instant at);

    /** The first use of a passphrase: it is not readable any more. */
    @Update("UPDATE person SET fresh_passphrase = NULL WHERE id = #{id} AND fresh_passphrase IS NOT NULL")
    void passphraseUsed(long id);

    @Update("UPDATE episode SET opened_at = #{at} WHERE id = #{episodeId} AND (opened_at IS NULL OR opened_at < #{notSince})")
    void opened(long episodeId, Instant at, Instant notSince);

    @Insert("INSERT INTO school_class (school_id, name, code, keep_until) VALUES (#{schoolId}, #{name}, #{code}, #{keepUntil})")
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void addClass(NewRow row, long schoolId, String name, String code, LocalDate keepUntil);

    @Update("UPDATE school_class SET practice = TRUE WHERE id = #{classId}")
    void forPractice(long classId);

    @Select("SELECT crew_id FROM episode WHERE id = #{episodeId}")
    long crewOf(long episodeId);

    @Insert("INSERT INTO class_teacher (class_id, person_id) VALUES (#{classId}, #{personId})")
    void addTeacherToClass(long classId, long personId);

    @Select(PERSON + "JOIN class_teacher t ON t.person_id = p.id WHERE t.class_id = #{classId} ORDER BY p.name, p.id")
    List<Person> teachersOf(long classId);

    @Delete("DELETE FROM class_teacher WHERE class_id = #{classId} AND person_id = #{personId}")
    int removeTeacher(long classId, long personId);

    /** The first class of a student is their home class. */
    @Insert("""
            INSERT IGNORE INTO class_student (class_id, person_id, home)
            SELECT #{classId}, #{personId}, NOT EXISTS (SELECT 1 FROM class_student o WHERE o.person_id = #{personId})
            """)
    void addStudentToClass(long classId, long personId);

    @Insert("INSERT INTO crew (class_id, name) VALUES (#{classId}, #{name})")
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void addCrew(NewRow row, long classId, String name);

    @Insert("INSERT INTO crew_member (crew_id, person_id) VALUES (#{crewId}, #{personId})")
    void addCrewMember(long crewId, long personId);

    @Insert("INSERT INTO episode (crew_id, title) VALUES (#{crewId}, #{title})")
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void addEpisode(NewRow row, long crewId, String title);

    @Select("SELECT id FROM person WHERE school_id = #{schoolId} AND NOT nobody")
    List<Long> everybody(long schoolId);

    @Select("SELECT coalesce(contact, '') AS contact, indexed FROM school WHERE id = #{schoolId}")
    SchoolOffice.Listeners listeners(long schoolId);

    @Update("UPDATE school SET contact = #{contact}, indexed = #{indexed} WHERE id = #{schoolId}")
    void setListeners(long schoolId, String contact, boolean indexed);

    @Select("SELECT time_zone FROM school WHERE id = #{schoolId}")
    String zone(long schoolId);

    @Select("SELECT count(*) FROM school")
    int schools();
}

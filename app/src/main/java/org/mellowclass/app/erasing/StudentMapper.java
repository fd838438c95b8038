package org.mellowclass.app.erasing;

import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.people.Voices;

/**
 * The rows of a student who is deleted. What is about them goes; in the work that their crew keeps, nobody stands where they stood. The foreign
 * keys see to it that no table is forgotten: the row of a person who is named anywhere cannot be deleted.
 */
@Mapper
interface StudentMapper {

    /** A student, with the name that listeners may read. */
    record Child(long id, long schoolId, String name, String onAirName, boolean home) {
    }

    @Select("""
            SELECT p.id, p.school_id, p.name, p.on_air_name, s.home FROM person p JOIN class_student s ON s.person_id = p.id
            WHERE p.id = #{studentId} AND s.class_id = #{classId}
            """)
    Optional<Child> ofClass(long classId, long studentId);

    @Select("SELECT id, school_id, name, on_air_name, TRUE AS home FROM person WHERE id = #{studentId} AND role = 'STUDENT' AND NOT nobody")
    Optional<Child> find(long studentId);

    /**
     * A take that is not erased in which a student speaks, or may: it was recorded or brought in by them, and nobody has said whose voice it is.
     *
     * @param others  whose voices are in it too; null for nobody's
     * @param ownSide the side on which nobody but this student speaks, while the others are on the other one; null where voices are mixed
     */
    record Spoken(long id, String name, String episode, String others, Voices.Side ownSide) {
    }

    @Select("""
            SELECT t.id, t.name, e.title AS episode,
              (SELECT group_concat(coalesce(p.name, g.name) ORDER BY p.name, g.name SEPARATOR ', ') FROM take_voice v
                 LEFT JOIN person p ON p.id = v.person_id LEFT JOIN guest g ON g.id = v.guest_id
                 WHERE v.take_id = t.id AND (v.person_id IS NULL OR v.person_id <> #{studentId})) AS others,
              (SELECT v.side FROM take_voice v WHERE v.take_id = t.id AND v.person_id = #{studentId} AND t.state = 'READY'
                 AND NOT EXISTS (SELECT 1 FROM take_voice o WHERE o.take_id = t.id AND (o.person_id IS NULL OR o.person_id <> #{studentId})
                   AND (o.side IS NULL OR o.side = v.side))) AS own_side
            FROM take t JOIN episode e ON e.id = t.episode_id
            WHERE t.state <> 'ERASED' AND t.origin <> 'SHELF' AND (
              EXISTS (SELECT 1 FROM take_voice v WHERE v.take_id = t.id AND v.person_id = #{studentId})
              OR t.author_id = #{studentId} AND NOT t.without_voice AND NOT EXISTS (SELECT 1 FROM take_voice v WHERE v.take_id = t.id))
            ORDER BY t.id
            """)
    List<Spoken> spoken(long studentId);

    /** Every episode that a student has had to do with. */
    @Select("""
            SELECT e.id FROM episode e JOIN crew_member m ON m.crew_id = e.crew_id WHERE m.person_id = #{studentId}
            UNION SELECT episode_id FROM take WHERE author_id = #{studentId}
            UNION SELECT t.episode_id FROM take_voice v JOIN take t ON t.id = v.take_id WHERE v.person_id = #{studentId}
            UNION SELECT episode_id FROM revision WHERE author_id = #{studentId}
            """)
    List<Long> episodes(long studentId);

    @Select("""
            SELECT p.name FROM person p JOIN crew_member m ON m.person_id = p.id JOIN episode e ON e.crew_id = m.crew_id
            WHERE e.id = #{episodeId} AND p.id <> #{studentId}
            """)
    List<String> crewWithout(long episodeId, long studentId);

    @Select("SELECT count(*) FROM margin_note WHERE author_id = #{studentId}")
    int notes(long studentId);

    @Select("SELECT id FROM person WHERE school_id = #{schoolId} AND nobody FOR UPDATE")
    Optional<Long> nobody(long schoolId);

    @Insert("""
            INSERT INTO person (school_id, role, name, secret_hash, on_air_name, nobody)
            VALUES (#{schoolId}, 'STUDENT', 'Somebody who has left', '', 'Somebody', TRUE)
            """)
    void addNobody(long schoolId);

    /** Where words of people are kept that may hold a name. */
    enum Kept { NOTE, HOW, ANSWER, MARK, SUMMARY, SENTENCE, UNHEARD, LET_THROUGH, AIR_TITLE, AIR_DESCRIPTION, TAKE, TRACK }

    record Words(Kept kept, long id, String words) {
    }

    @Select("""
            SELECT 'NOTE' AS kept, n.id, n.words FROM margin_note n JOIN hand_in h ON h.id = n.hand_in_id WHERE h.episode_id = #{episodeId}
            UNION ALL SELECT 'HOW', n.id, n.done_words FROM margin_note n JOIN hand_in h ON h.id = n.hand_in_id WHERE h.episode_id = #{episodeId} AND n.done_words IS NOT NULL
            UNION ALL SELECT 'ANSWER', r.id, r.words FROM note_reply r JOIN margin_note n ON n.id = r.note_id JOIN hand_in h ON h.id = n.hand_in_id WHERE h.episode_id = #{episodeId}
            UNION ALL SELECT 'MARK', m.id, m.sentence FROM mark m JOIN hand_in h ON h.id = m.hand_in_id WHERE h.episode_id = #{episodeId}
            UNION ALL SELECT 'SUMMARY', g.hand_in_id, g.summary FROM marking g JOIN hand_in h ON h.id = g.hand_in_id WHERE h.episode_id = #{episodeId}
            UNION ALL SELECT 'SENTENCE', id, sentence FROM hand_in WHERE episode_id = #{episodeId} AND sentence IS NOT NULL
            UNION ALL SELECT 'UNHEARD', id, unheard_reason FROM hand_in WHERE episode_id = #{episodeId} AND unheard_reason IS NOT NULL
            UNION ALL SELECT DISTINCT 'LET_THROUGH', l.hand_in_id, l.reason FROM let_through l JOIN hand_in h ON h.id = l.hand_in_id WHERE h.episode_id = #{episodeId}
            UNION ALL SELECT 'AIR_TITLE', id, title FROM publication WHERE episode_id = #{episodeId}
            UNION ALL SELECT 'AIR_DESCRIPTION', id, description FROM publication WHERE episode_id = #{episodeId}
            UNION ALL SELECT 'TAKE', id, name FROM take WHERE episode_id = #{episodeId}
            UNION ALL SELECT 'TRACK', id, track_name FROM take WHERE episode_id = #{episodeId}
            """)
    List<Words> words(long episodeId);

    @Update("UPDATE margin_note SET words = #{words} WHERE id = #{id}")
    void setNote(long id, String words);

    @Update("UPDATE margin_note SET done_words = #{words} WHERE id = #{id}")
    void setHow(long id, String words);

    @Update("UPDATE note_reply SET words = #{words} WHERE id = #{id}")
    void setAnswer(long id, String words);

    @Update("UPDATE mark SET sentence = #{words} WHERE id = #{id}")
    void setMark(long id, String words);

    @Update("UPDATE marking SET summary = #{words} WHERE hand_in_id = #{id}")
    void setSummary(long id, String words);

    @Update("UPDATE hand_in SET sentence = #{words} WHERE id = #{id}")
    void setSentence(long id, String words);

    @Update("UPDATE hand_in SET unheard_reason = #{words} WHERE id = #{id}")
    void setUnheard(long id, String words);

    @Update("UPDATE let_through SET reason = #{words} WHERE hand_in_id = #{handInId} AND reason = #{before}")
    void setLetThrough(long handInId, String before, String words);

    @Update("UPDATE publication SET title = #{words} WHERE id = #{id}")
    void setAirTitle(long id, String words);

    @Update("UPDATE publication SET description = #{words} WHERE id = #{id}")
    void setAirDescription(long id, String words);

    @Update("UPDATE take SET name = #{words} WHERE id = #{id}")
    void setTake(long id, String words);

    @Update("UPDATE take SET track_name = #{words} WHERE id = #{id}")
    void setTrack(long id, String words);

    default void set(Words before, String words) {
        long id = before.id;
        switch (before.kept) {
            case NOTE -> setNote(id, words);
            case MARK -> setMark(id, words);
            case SUMMARY -> setSummary(id, words);
            case HOW -> setHow(id, words);
            case ANSWER -> setAnswer(id, words);
            case SENTENCE -> setSentence(id, words);
            case UNHEARD -> setUnheard(id, words);
            case LET_THROUGH -> setLetThrough(id, before.words, words);
            case AIR_TITLE -> setAirTitle(id, words);
            case AIR_DESCRIPTION -> setAirDescription(id, words);
            case TAKE -> setTake(id, words);
            case TRACK -> setTrack(id, words);
        }
    }

    @Delete("DELETE FROM consent WHERE person_id = #{studentId}")
    void deleteConsents(long studentId);

    @Delete("DELETE FROM known_laptop WHERE person_id = #{studentId}")
    void deleteLaptops(long studentId);

    @Delete("DELETE FROM part_owner WHERE person_id = #{studentId}")
    void deleteParts(long studentId);

    @Delete("DELETE FROM join_request WHERE person_id = #{studentId}")
    void deleteJoins(long studentId);

    @Delete("DELETE FROM crew_member WHERE person_id = #{studentId}")
    void deleteCrews(long studentId);

    @Delete("DELETE FROM class_student WHERE person_id = #{studentId}")
    void deleteClasses(long studentId);

    @Delete("DELETE FROM take_voice WHERE take_id = #{takeId} AND person_id = #{studentId}")
    void deleteVoice(long takeId, long studentId);

    @Delete("DELETE FROM take_voice WHERE person_id = #{studentId}")
    void deleteVoices(long studentId);

    @Delete("DELETE FROM margin_note WHERE author_id = #{studentId}")
    void deleteNotes(long studentId);

    @Select("SELECT arriving FROM incoming_file WHERE author_id = #{studentId}")
    List<String> filesOnTheWay(long studentId);

    @Delete("DELETE FROM incoming_file WHERE author_id = #{studentId}")
    void deleteFilesOnTheWay(long studentId);

    @Update("UPDATE take SET author_id = #{nobody} WHERE author_id = #{studentId}")
    void takesOfNobody(long studentId, long nobody);

    @Update("UPDATE revision SET author_id = #{nobody} WHERE author_id = #{studentId}")
    void editsOfNobody(long studentId, long nobody);

    @Update("UPDATE hand_in SET author_id = #{nobody} WHERE author_id = #{studentId}")
    void handInsOfNobody(long studentId, long nobody);

    @Update("UPDATE margin_note SET done_by = #{nobody} WHERE done_by = #{studentId}")
    void doneByNobody(long studentId, long nobody);

    @Update("UPDATE guest SET recorded_by = #{nobody} WHERE recorded_by = #{studentId}")
    void guestsOfNobody(long studentId, long nobody);

    @Update("UPDATE erase_request SET asked_by = #{nobody} WHERE asked_by = #{studentId}")
    void askedByNobody(long studentId, long nobody);

    @Update("UPDATE line_up SET asked_by = #{nobody} WHERE asked_by = #{studentId}")
    void linedUpByNobody(long studentId, long nobody);

    /** The security log forgets by itself whom it was about. */
    @Delete("DELETE FROM person WHERE id = #{studentId}")
    void deletePerson(long studentId);

    /** Whatever is about a student, and then the student. */
    default void delete(long studentId, long nobody) {
        deleteConsents(studentId);
        deleteLaptops(studentId);
        deleteParts(studentId);
        deleteJoins(studentId);
        deleteCrews(studentId);
        deleteClasses(studentId);
        deleteVoices(studentId);
        deleteNotes(studentId);
        deleteFilesOnTheWay(studentId);
        takesOfNobody(studentId, nobody);
        editsOfNobody(studentId, nobody);
        handInsOfNobody(studentId, nobody);
        doneByNobody(studentId, nobody);
        guestsOfNobody(studentId, nobody);
        askedByNobody(studentId, nobody);
        linedUpByNobody(studentId, nobody);
        deletePerson(studentId);
    }
}

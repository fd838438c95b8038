package org.mellowclass.app.review;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface MarginNoteMapper {

    String NOTE = """
            SELECT n.id, n.hand_in_id, h.episode_id, h.number AS hand_in_number, person.name AS author_name, n.kind, n.words,
                   n.start_frame, n.end_frame, n.anchor, n.done_at, n.done_words, n.agreed_at,
                   n.author_id, n.track_names, person.role = 'STUDENT' AS by_student, n.held_at, n.reported_at
            FROM margin_note n JOIN hand_in h ON h.id = n.hand_in_id JOIN person ON person.id = n.author_id
            """;

    @Insert("""
            INSERT INTO margin_note (hand_in_id, author_id, kind, words, start_frame, end_frame, anchor, track_names, created_at, held_at)
            VALUES (#{handInId}, #{authorId}, #{kind}, #{words}, #{startFrame}, #{endFrame}, #{anchor}, #{trackNames}, #{at}, #{heldAt})
            """)
    void add(long handInId, long authorId, MarginNote.Kind kind, String words, long startFrame, long endFrame, String anchor,
             String trackNames, Instant at, Instant heldAt);

    @Select(NOTE + "WHERE n.id = #{id}")
    Optional<MarginNote> find(long id);

    @Select(NOTE + "WHERE n.hand_in_id = #{handInId} ORDER BY n.start_frame, n.id")
    List<MarginNote> ofHandIn(long handInId);

    @Select(NOTE + "WHERE h.episode_id = #{episodeId} ORDER BY n.start_frame, n.id")
    List<MarginNote> ofEpisode(long episodeId);

    @Update("UPDATE margin_note SET done_by = #{personId}, done_at = #{at}, done_words = #{words}, agreed_at = NULL WHERE id = #{id}")
    void tick(long id, Long personId, Instant at, String words);

    /** A tick that the teacher agrees to stays; one that they do not is none. */
    @Update("UPDATE margin_note SET agreed_at = #{at} WHERE id = #{id} AND done_at IS NOT NULL")
    void agree(long id, Instant at);

    @Update("UPDATE margin_note SET done_by = NULL, done_at = NULL, agreed_at = NULL WHERE id = #{id}")
    void reopen(long id);

    /** What somebody answered to a note. */
    record Reply(long id, long noteId, long authorId, String authorName, String words) {
    }

    @Insert("INSERT INTO note_reply (note_id, author_id, words, written_at) VALUES (#{noteId}, #{authorId}, #{words}, #{at})")
    void reply(long noteId, long authorId, String words, Instant at);

    @Select("SELECT count(*) FROM note_reply WHERE note_id = #{noteId}")
    int replies(long noteId);

    @Select("""
            SELECT r.id, r.note_id, r.author_id, p.name AS author_name, r.words
            FROM note_reply r JOIN person p ON p.id = r.author_id JOIN margin_note n ON n.id = r.note_id JOIN hand_in h ON h.id = n.hand_in_id
            WHERE h.episode_id = #{episodeId} ORDER BY r.id
            """)
    List<Reply> repliesOfEpisode(long episodeId);

    /** What somebody has written more than once of a kind, the most frequent first. */
    @Select("""
            SELECT words FROM margin_note WHERE author_id = #{authorId} AND kind = #{kind} AND char_length(words) <= 60
            GROUP BY words HAVING count(*) > 1 ORDER BY count(*) DESC, max(created_at) DESC LIMIT #{most}
            """)
    List<String> phrases(long authorId, MarginNote.Kind kind, int most);

    record Open(int notes, int toMend) {
    }

    @Select("SELECT count(*) AS notes, coalesce(sum(kind = 'MEND'), 0) AS to_mend FROM margin_note WHERE hand_in_id = #{handInId} AND done_at IS NULL AND held_at IS NULL")
    Open open(long handInId);

    @Update("UPDATE margin_note SET held_at = #{heldAt}, reported_at = #{reportedAt} WHERE id = #{id}")
    void hold(long id, Instant heldAt, Instant reportedAt);

    @Delete("DELETE FROM margin_note WHERE id = #{id}")
    void delete(long id);
}

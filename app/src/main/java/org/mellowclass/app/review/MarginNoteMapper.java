package org.mellowclass.app.review;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface MarginNoteMapper {

    String NOTE = """
            SELECT n.id, n.hand_in_id, h.episode_id, h.number AS hand_in_number, person.name AS author_name, n.kind, n.words,
                   n.start_frame, n.end_frame, n.anchor, n.done_at, n.done_words, n.agreed_at,
                   n.author_id, n.track_names, person.role = 'STUDENT' AS by_student, n.held_at, n.reported_at, n.take_id, n.shown_at
            FROM margin_note n JOIN hand_in h ON h.id = n.hand_in_id JOIN person ON person.id = n.author_id
            """;

    /** A row to insert, whose id the database gives. */
    final class NewRow {
        final long handInId;
        final long authorId;
        final MarginNotes.Wish wish;
        final String trackNames;
        final String anchor;
        final Instant at;
        final Instant heldAt;
        final Long takeId;
        long id;

        NewRow(long handInId, long authorId, MarginNotes.Wish wish, String trackNames, String anchor, Instant at, Instant heldAt, Long takeId) {
            this.handInId = handInId;
            this.authorId = authorId;
            this.wish = wish;
            this.trackNames = trackNames;
            this.anchor = anchor;
            this.at = at;
            this.heldAt = heldAt;
            this.takeId = takeId;
        }
    }

    @Insert("""
            INSERT INTO margin_note (hand_in_id, author_id, kind, words, start_frame, end_frame, anchor, track_names, created_at, held_at, take_id, shown_at)
            VALUES (#{handInId}, #{authorId}, #{wish.kind}, #{wish.words}, #{wish.startFrame}, #{wish.endFrame}, #{anchor}, #{trackNames}, #{at}, #{heldAt}, #{takeId},
                    IF(#{heldAt} IS NULL AND #{takeId} IS NULL, #{at}, NULL))
            """)
    @Options(useGeneratedKeys = true, keyProperty = "id")
    void add(NewRow row);

    @Select("SELECT count(*) FROM margin_note WHERE hand_in_id = #{handInId}")
    int count(long handInId);

    /** What was spoken can be heard now. */
    @Update("UPDATE margin_note SET shown_at = #{at} WHERE take_id = #{takeId} AND shown_at IS NULL AND held_at IS NULL")
    void canBeHeard(long takeId, Instant at);

    @Delete("DELETE FROM margin_note WHERE take_id = #{takeId}")
    void deleteSpoken(long takeId);

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
            SELECT words FROM margin_note WHERE author_id = #{authorId} AND kind = #{kind} AND char_length(words) BETWEEN 1 AND 60
            GROUP BY words HAVING count(*) > 1 ORDER BY count(*) DESC, max(created_at) DESC LIMIT #{most}
            """)
    List<String> phrases(long authorId, MarginNote.Kind kind, int most);

    record Open(int notes, int toMend) {
    }

    @Select("SELECT count(*) AS notes, coalesce(sum(kind = 'MEND'), 0) AS to_mend FROM margin_note WHERE hand_in_id = #{handInId} AND done_at IS NULL AND shown_at IS NOT NULL")
    Open open(long handInId);

    @Update("UPDATE margin_note SET held_at = #{heldAt}, reported_at = #{reportedAt}, shown_at = IF(#{heldAt} IS NULL, #{now}, NULL) WHERE id = #{id}")
    void hold(long id, Instant heldAt, Instant reportedAt, Instant now);

    @Delete("DELETE FROM margin_note WHERE id = #{id}")
    void delete(long id);
}

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
                   n.start_frame, n.end_frame, n.anchor, n.done_at
            FROM margin_note n JOIN hand_in h ON h.id = n.hand_in_id JOIN person ON person.id = n.author_id
            """;

    @Insert("""
            INSERT INTO margin_note (hand_in_id, author_id, kind, words, start_frame, end_frame, anchor, created_at)
            VALUES (#{handInId}, #{authorId}, #{kind}, #{words}, #{startFrame}, #{endFrame}, #{anchor}, #{at})
            """)
    void add(long handInId, long authorId, MarginNote.Kind kind, String words, long startFrame, long endFrame, String anchor,
             Instant at);

    @Select(NOTE + "WHERE n.id = #{id}")
    Optional<MarginNote> find(long id);

    @Select(NOTE + "WHERE n.hand_in_id = #{handInId} ORDER BY n.start_frame, n.id")
    List<MarginNote> ofHandIn(long handInId);

    @Select(NOTE + "WHERE h.episode_id = #{episodeId} ORDER BY n.start_frame, n.id")
    List<MarginNote> ofEpisode(long episodeId);

    @Update("UPDATE margin_note SET done_by = #{personId}, done_at = #{at} WHERE id = #{id}")
    void tick(long id, Long personId, Instant at);

    @Delete("DELETE FROM margin_note WHERE id = #{id}")
    void delete(long id);
}

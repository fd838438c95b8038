package org.mellowclass.app.takes;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface TakeMapper {

    String TAKE = """
            SELECT id, episode_id, author_id, name, track_name, origin, state, problem, line_id, lead_frames, frames, created_at
            FROM take
            """;

    /** A row to insert, whose id the database gives. */
    final class NewRow {
        final TakeRows.NewTake take;
        final Instant createdAt;
        long id;

        NewRow(TakeRows.NewTake take, Instant createdAt) {
            this.take = take;
            this.createdAt = createdAt;
        }
    }

    @Insert("""
            INSERT INTO take (episode_id, author_id, name, track_name, origin, state, created_at, place_frame, line_id, placing, landed)
            VALUES (#{take.episodeId}, #{take.authorId}, #{take.name}, #{take.trackName}, #{take.origin}, #{take.state}, #{createdAt},
                    #{take.placeFrame}, #{take.lineId}, #{take.placing}, FALSE)
            """)
    @Options(useGeneratedKeys = true, keyProperty = "id")
    void add(NewRow row);

    @Select(TAKE + "WHERE id = #{id}")
    Optional<Take> find(long id);

    @Select(TAKE + "WHERE id = #{id} FOR UPDATE")
    Optional<Take> lock(long id);

    /** The crew's: what is spoken in notes is none of them. */
    @Select(TAKE + "WHERE episode_id = #{episodeId} AND origin <> 'NOTE' ORDER BY created_at DESC, id DESC")
    List<Take> ofEpisode(long episodeId);

    @Select(TAKE + """
            WHERE id IN (SELECT max(t.id) FROM take t
              JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} AND t.state = 'READY' AND t.origin NOT IN ('SHELF', 'NOTE') GROUP BY t.episode_id)
            """)
    List<Take> newestOfClass(long classId);

    @Select("SELECT count(*) FROM take WHERE episode_id = #{episodeId} AND origin = #{origin}")
    int count(long episodeId, Take.Origin origin);

    @Update("UPDATE take SET state = 'ARRIVED' WHERE id = #{id} AND state = 'RECORDING'")
    int arrived(long id);

    @Update("""
            UPDATE take SET state = 'READY', frames = #{frames}, lead_frames = #{leadFrames}
            WHERE id = #{id} AND state IN ('ARRIVED', 'READY')
            """)
    int ready(long id, long frames, long leadFrames);

    @Select(TAKE + "WHERE episode_id = #{episodeId} AND line_id = #{lineId} AND state = 'READY' ORDER BY id")
    List<Take> ofLine(long episodeId, long lineId);

    @Select("""
            SELECT count(*) FROM brief_line l JOIN crew ON crew.class_id = l.class_id JOIN episode e ON e.crew_id = crew.id
            WHERE l.id = #{lineId} AND e.id = #{episodeId}
            """)
    int linesOfEpisode(long lineId, long episodeId);

    @Select(TAKE + "WHERE episode_id = #{episodeId} AND state = 'READY' AND NOT landed AND origin <> 'NOTE' ORDER BY id")
    List<Take> toLand(long episodeId);

    @Select("SELECT placing, place_frame FROM take WHERE id = #{id}")
    TakeLanding.Place place(long id);

    @Update("UPDATE take SET landed = TRUE, track_name = #{trackName} WHERE id = #{id}")
    void landed(long id, String trackName);

    /** How many that were brought in before a take, for the same track, are not ready yet. */
    @Select("""
            SELECT count(*) FROM take WHERE episode_id = #{episodeId} AND track_name = #{trackName} AND id < #{id}
              AND origin = 'BROUGHT_IN' AND placing = 'BEHIND' AND state = 'ARRIVED'
            """)
    int onTheWayBefore(Take take);

    @Select("SELECT id FROM take WHERE episode_id = #{episodeId} AND shelf_sound_id = #{shelfSoundId}")
    Optional<Long> ofShelf(long episodeId, long shelfSoundId);

    @Update("UPDATE take SET state = 'READY', landed = TRUE, shelf_sound_id = #{shelfSoundId}, frames = #{frames} WHERE id = #{id}")
    void readyFromShelf(long id, long shelfSoundId, long frames);

    @Update("UPDATE take SET state = 'FAILED', problem = #{problem} WHERE id = #{id} AND state <> 'READY'")
    void failed(long id, String problem);

    @Update("UPDATE take SET state = 'ARRIVED', problem = NULL WHERE id = #{id} AND state = 'FAILED'")
    void arrivedAgain(long id);

    @Update("UPDATE take SET state = 'ERASED' WHERE id = #{id}")
    void erased(long id);
}

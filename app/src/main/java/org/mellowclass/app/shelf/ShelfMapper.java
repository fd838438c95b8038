package org.mellowclass.app.shelf;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.store.NamedSounds;

@Mapper
interface ShelfMapper extends NamedSounds {

    String SOUND = """
            SELECT id, class_id, name, kind, author, licence, source, credit, state, problem, source_rate, original_key,
                   sound_key, skyline_key, channels, frames, clipped, created_at
            FROM shelf_sound
            """;
    String EXCERPT = "SELECT id, sound_id, name, start_frame, end_frame FROM shelf_excerpt ";

    /** A row to insert, whose id the database gives. */
    final class NewSound {
        final long classId;
        final String name;
        final ShelfSound.Kind kind;
        final String author;
        final String licence;
        final String source;
        final String credit;
        final String originalKey;
        final long addedBy;
        final Instant createdAt;
        long id;

        NewSound(long classId, String name, ShelfSound.Kind kind, String author, String licence, String source, String credit,
                 String originalKey, long addedBy, Instant createdAt) {
            this.classId = classId;
            this.name = name;
            this.kind = kind;
            this.author = author;
            this.licence = licence;
            this.source = source;
            this.credit = credit;
            this.originalKey = originalKey;
            this.addedBy = addedBy;
            this.createdAt = createdAt;
        }
    }

    @Insert("""
            INSERT INTO shelf_sound (class_id, name, kind, author, licence, source, credit, state, original_key, added_by, created_at)
            VALUES (#{classId}, #{name}, #{kind}, #{author}, #{licence}, #{source}, #{credit}, 'ARRIVED', #{originalKey},
                    #{addedBy}, #{createdAt})
            """)
    @Options(useGeneratedKeys = true, keyProperty = "id")
    void add(NewSound sound);

    @Insert("""
            INSERT INTO shelf_sound (class_id, name, kind, author, licence, source, credit, state, source_rate, original_key,
                                     sound_key, skyline_key, channels, frames, clipped, added_by, created_at)
            SELECT #{classId}, name, kind, author, licence, source, credit, state, source_rate, original_key, sound_key,
                   skyline_key, channels, frames, clipped, #{addedBy}, #{at}
            FROM shelf_sound WHERE id = #{soundId} AND state = 'READY'
            """)
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void copy(NewRow row, long soundId, long classId, long addedBy, Instant at);

    /** A new row, whose id the database gives. */
    final class NewRow {
        long id;

        public void setId(long id) {
            this.id = id;
        }

        public long getId() {
            return id;
        }
    }

    @Select(SOUND + "WHERE class_id = #{classId} AND gone_at IS NULL ORDER BY kind DESC, name, id")
    List<ShelfSound> ofClass(long classId);

    @Select(SOUND + "WHERE id = #{id}")
    Optional<ShelfSound> find(long id);

    @Select("""
            <script>SELECT DISTINCT s.name, s.credit FROM take t JOIN shelf_sound s ON s.id = t.shelf_sound_id
            WHERE t.episode_id = #{episodeId} AND t.id IN <foreach item="id" collection="takeIds" open="(" separator="," close=")">#{id}</foreach>
            ORDER BY s.name, s.credit</script>
            """)
    List<Shelf.Credit> credits(long episodeId, Collection<Long> takeIds);

    @Update("UPDATE shelf_sound SET gone_at = #{at} WHERE id = #{id}")
    void takeAway(long id, Instant at);

    @Update("""
            UPDATE shelf_sound SET state = 'READY', source_rate = #{sourceRate}, sound_key = #{soundKey}, skyline_key = #{skylineKey},
                   channels = #{channels}, frames = #{frames}, clipped = #{clipped}
            WHERE id = #{id} AND state = 'ARRIVED'
            """)
    int ready(long id, int sourceRate, String soundKey, String skylineKey, int channels, long frames, String clipped);

    @Update("UPDATE shelf_sound SET state = 'FAILED', problem = #{problem}, original_key = NULL WHERE id = #{id} AND state = 'ARRIVED'")
    int failed(long id, String problem);

    /** As {@link #failed}, of one whose file is kept, so that it can be tried again. */
    @Update("UPDATE shelf_sound SET state = 'FAILED', problem = #{problem} WHERE id = #{id} AND state = 'ARRIVED'")
    void notMade(long id, String problem);

    @Update("UPDATE shelf_sound SET state = 'ARRIVED', problem = NULL WHERE id = #{id} AND state = 'FAILED' AND original_key IS NOT NULL")
    int again(long id);

    @Insert("""
            INSERT INTO shelf_excerpt (sound_id, name, start_frame, end_frame)
            VALUES (#{soundId}, #{name}, #{startFrame}, #{endFrame})
            """)
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void addExcerpt(NewRow row, long soundId, String name, long startFrame, long endFrame);

    @Select(EXCERPT + "WHERE sound_id IN (SELECT id FROM shelf_sound WHERE class_id = #{classId}) ORDER BY start_frame, id")
    List<Excerpt> excerptsOfClass(long classId);

    @Select(EXCERPT + "WHERE id = #{id}")
    Optional<Excerpt> excerpt(long id);

    @Delete("DELETE FROM shelf_excerpt WHERE id = #{id}")
    void deleteExcerpt(long id);

    @Override
    @Select("""
            SELECT original_key FROM shelf_sound WHERE original_key IS NOT NULL
            UNION ALL SELECT sound_key FROM shelf_sound WHERE sound_key IS NOT NULL
            UNION ALL SELECT skyline_key FROM shelf_sound WHERE skyline_key IS NOT NULL
            """)
    Set<String> keys();

    /** The shelf is the class's. */
    @Override
    default Set<String> keysOfEpisode(long episodeId) {
        return Set.of();
    }

    @Override
    @Select("""
            SELECT original_key FROM shelf_sound WHERE class_id = #{classId} AND original_key IS NOT NULL
            UNION ALL SELECT sound_key FROM shelf_sound WHERE class_id = #{classId} AND sound_key IS NOT NULL
            UNION ALL SELECT skyline_key FROM shelf_sound WHERE class_id = #{classId} AND skyline_key IS NOT NULL
            """)
    Set<String> keysOfClass(long classId);
}

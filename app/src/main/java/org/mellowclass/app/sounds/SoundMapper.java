package org.mellowclass.app.sounds;

import java.time.Instant;
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
import org.mellowclass.core.measure.StereoFinder;

@Mapper
interface SoundMapper extends NamedSounds {

    String SOUND = "SELECT s.id, s.take_id, s.treatment, s.sound_key, s.skyline_key, s.channels, s.failed FROM sound s ";

    record Row(long id, long takeId, String treatment, String soundKey, String skylineKey, Integer channels, boolean failed) {
        Sound sound() {
            return new Sound(id, takeId, TreatmentCodec.read(treatment), soundKey, skylineKey, channels, failed);
        }
    }

    @Select(SOUND + "WHERE s.id = #{id}")
    Optional<Row> find(long id);

    @Select(SOUND + "WHERE s.take_id = #{takeId} AND s.treatment_key = #{treatmentKey}")
    Optional<Row> of(long takeId, String treatmentKey);

    @Select(SOUND + "WHERE s.take_id = #{takeId}")
    List<Row> ofTake(long takeId);

    @Select(SOUND + "JOIN take t ON t.id = s.take_id WHERE t.episode_id = #{episodeId}")
    List<Row> ofEpisode(long episodeId);

    @Insert("INSERT IGNORE INTO sound (take_id, treatment_key, treatment) VALUES (#{takeId}, #{treatmentKey}, #{treatment})")
    void add(long takeId, String treatmentKey, String treatment);

    /** What was measured of another sound in its place is forgotten. @param before the sound it had, which another run may have changed: null for none */
    @Update("""
            UPDATE sound SET sound_key = #{soundKey}, skyline_key = #{skylineKey}, channels = #{channels}, failed = FALSE, heard = NULL, harm = NULL
            WHERE id = #{id} AND sound_key <=> #{before}
            """)
    int made(long id, String soundKey, String skylineKey, int channels, String before);

    @Update("UPDATE sound SET sound_key = NULL, skyline_key = NULL, channels = NULL WHERE id = #{id} AND sound_key = #{soundKey}")
    void lost(long id, String soundKey);

    @Update("UPDATE sound SET failed = #{failed} WHERE id = #{id}")
    void failed(long id, boolean failed);

    @Update("UPDATE sound SET heard = #{heard} WHERE id = #{id}")
    void heard(long id, String heard);

    @Select("SELECT heard FROM sound WHERE id = #{id}")
    Optional<String> heardOf(long id);

    @Update("UPDATE sound SET harm = #{harm} WHERE id = #{id}")
    void harm(long id, String harm);

    @Select("SELECT harm FROM sound WHERE id = #{id}")
    Optional<String> harmOf(long id);

    @Select("SELECT id FROM take WHERE episode_id = #{episodeId} AND without_voice")
    Set<Long> withoutVoice(long episodeId);

    record HeardRow(long takeId, String treatmentKey, String heard) {
    }

    @Select("""
            SELECT s.take_id, s.treatment_key, s.heard FROM sound s JOIN take t ON t.id = s.take_id
            WHERE t.episode_id = #{episodeId} AND s.heard IS NOT NULL
            """)
    List<HeardRow> heardOfEpisode(long episodeId);

    @Delete("DELETE FROM sound WHERE take_id = #{takeId}")
    void forget(long takeId);

    @Insert("INSERT IGNORE INTO take_findings (take_id, clipped, noticed, room_frame) VALUES (#{takeId}, #{clipped}, #{noticed}, #{roomFrame})")
    int found(long takeId, String clipped, StereoFinder.Noticed noticed, Long roomFrame);

    /** Its pauses are null in one that an earlier version has measured. */
    record FindingsRow(long takeId, String clipped, StereoFinder.Noticed noticed, Long roomFrame, String pauses, Double loudnessLufs) {
    }

    @Update("UPDATE take_findings SET pauses = #{pauses}, loudness_lufs = #{loudnessLufs} WHERE take_id = #{takeId}")
    void speechFound(long takeId, String pauses, Double loudnessLufs);

    @Select("SELECT take_id, clipped, noticed, room_frame, pauses, loudness_lufs FROM take_findings WHERE take_id = #{takeId}")
    Optional<FindingsRow> findings(long takeId);

    /** Without their pauses, which are many and seldom asked for. */
    @Select("""
            SELECT f.take_id, f.clipped, f.noticed, f.room_frame, NULL AS pauses, f.loudness_lufs FROM take_findings f JOIN take t ON t.id = f.take_id
            WHERE t.episode_id = #{episodeId}
            """)
    List<FindingsRow> findingsOfEpisode(long episodeId);

    record SpeechRow(long takeId, String pauses, Double loudnessLufs) {
    }

    @Select("""
            SELECT f.take_id, f.pauses, f.loudness_lufs FROM take_findings f JOIN take t ON t.id = f.take_id
            WHERE t.episode_id = #{episodeId} AND f.pauses IS NOT NULL
            """)
    List<SpeechRow> speechOfEpisode(long episodeId);

    @Delete("DELETE FROM take_findings WHERE take_id = #{takeId}")
    void forgetFindings(long takeId);

    /** The file that a take came as; what never came of it, and what is worth saying of the rest. */
    record Original(long takeId, String originalKey, String missing, boolean damaged, boolean silent, Integer mixedChannels) {

        AsItCame came() {
            return new AsItCame(damaged, silent, mixedChannels);
        }
    }

    @Insert("""
            INSERT INTO original (take_id, original_key, missing, damaged, silent, mixed_channels)
            VALUES (#{takeId}, #{originalKey}, #{missing}, #{came.damaged}, #{came.silent}, #{came.mixedChannels})
            ON DUPLICATE KEY UPDATE original_key = #{originalKey}, missing = #{missing}, damaged = #{came.damaged}, silent = #{came.silent},
              mixed_channels = #{came.mixedChannels}
            """)
    void keepOriginal(long takeId, String originalKey, String missing, AsItCame came);

    @Select("SELECT take_id, original_key, missing, damaged, silent, mixed_channels FROM original WHERE take_id = #{takeId}")
    Optional<Original> original(long takeId);

    @Select("""
            SELECT o.take_id, o.original_key, o.missing, o.damaged, o.silent, o.mixed_channels FROM original o JOIN take t ON t.id = o.take_id WHERE t.episode_id = #{episodeId}
            """)
    List<Original> originalsOfEpisode(long episodeId);

    @Delete("DELETE FROM original WHERE take_id = #{takeId}")
    void forgetOriginal(long takeId);

    /** A new row, whose id the database gives. */
    final class Returned {
        private long id;

        public long getId() {
            return id;
        }

        public void setId(long id) {
            this.id = id;
        }
    }

    @Insert("INSERT INTO returned_file (take_id, original_key, returned_at) VALUES (#{takeId}, #{originalKey}, #{at})")
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void addReturned(Returned row, long takeId, String originalKey, Instant at);

    @Select("SELECT original_key FROM returned_file WHERE id = #{id}")
    Optional<String> returned(long id);

    @Select("SELECT original_key FROM returned_file WHERE take_id = #{takeId}")
    List<String> returnedOfTake(long takeId);

    @Delete("DELETE FROM returned_file WHERE take_id = #{takeId}")
    void forgetReturned(long takeId);

    @Override
    @Select("""
            SELECT s.sound_key FROM sound s WHERE s.sound_key IS NOT NULL
            UNION ALL SELECT s.skyline_key FROM sound s WHERE s.skyline_key IS NOT NULL
            UNION ALL SELECT o.original_key FROM original o WHERE o.original_key IS NOT NULL
            UNION ALL SELECT r.original_key FROM returned_file r
            """)
    Set<String> keys();

    @Override
    @Select("""
            SELECT s.sound_key FROM sound s JOIN take t ON t.id = s.take_id
              WHERE t.episode_id = #{episodeId} AND s.sound_key IS NOT NULL
            UNION ALL SELECT s.skyline_key FROM sound s JOIN take t ON t.id = s.take_id
              WHERE t.episode_id = #{episodeId} AND s.skyline_key IS NOT NULL
            UNION ALL SELECT o.original_key FROM original o JOIN take t ON t.id = o.take_id
              WHERE t.episode_id = #{episodeId} AND o.original_key IS NOT NULL
            UNION ALL SELECT r.original_key FROM returned_file r JOIN take t ON t.id = r.take_id WHERE t.episode_id = #{episodeId}
            """)
    Set<String> keysOfEpisode(long episodeId);

    @Override
    @Select("""
            SELECT s.sound_key FROM sound s JOIN take t ON t.id = s.take_id JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} AND s.sound_key IS NOT NULL
            UNION ALL SELECT s.skyline_key FROM sound s JOIN take t ON t.id = s.take_id JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} AND s.skyline_key IS NOT NULL
            UNION ALL SELECT o.original_key FROM original o JOIN take t ON t.id = o.take_id JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} AND o.original_key IS NOT NULL
            UNION ALL SELECT r.original_key FROM returned_file r JOIN take t ON t.id = r.take_id JOIN episode e ON e.id = t.episode_id
              JOIN crew ON crew.id = e.crew_id WHERE crew.class_id = #{classId}
            """)
    Set<String> keysOfClass(long classId);

    /** The picture of a take as it is. */
    record Picture(long takeId, String skylineKey) {
    }

    @Select("""
            SELECT s.take_id, s.skyline_key FROM sound s JOIN take t ON t.id = s.take_id
            JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id
            WHERE crew.class_id = #{classId} AND s.treatment_key = 'as-it-is' AND s.skyline_key IS NOT NULL
            """)
    List<Picture> picturesOfClass(long classId);

    record Former(long id, long takeId, String treatment) {
    }

    @Select("SELECT id, take_id, treatment FROM former_take")
    List<Former> former();
}

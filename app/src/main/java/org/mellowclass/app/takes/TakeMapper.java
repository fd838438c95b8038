package org.mellowclass.app.takes;

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
import org.mellowclass.core.measure.StereoFinder;

@Mapper
interface TakeMapper {

    String TAKE = """
            SELECT id, episode_id, author_id, name, track_name, origin, state, problem, source_rate, source_channels,
                   original_key, sound_key, skyline_key, channels, frames, clipped, room_frame, last_sign_at,
                   source_frames, missing, lead_source_frames, lead_frames, place_frame, line_id, placing, noticed, made_from, derivation, drift_ppm, together, microphone, created_at
            FROM take
            """;

    /** What a chunk is, without its sound. */
    record ChunkFacts(int number, long firstFrame, int frames) {
        long endFrame() {
            return firstFrame + frames;
        }
    }

    /** The sound of a chunk. */
    record ChunkPcm(byte[] pcm) {
    }

    /** A row to insert, whose id the database gives. */
    final class NewTake {
        final long episodeId;
        final long authorId;
        final String name;
        final String trackName;
        final Take.Origin origin;
        final Take.State state;
        final int sourceRate;
        final int sourceChannels;
        final String originalKey;
        final String uploadKey;
        final Instant createdAt;
        long leadSourceFrames;
        Long placeFrame;
        Long lineId;
        String microphone;
        Take.Placing placing = Take.Placing.BEHIND;
        Long madeFrom;
        Derivation derivation;
        Double driftPpm;
        String together;
        long id;

        NewTake(long episodeId, long authorId, String name, String trackName, Take.Origin origin, Take.State state,
                int sourceRate, int sourceChannels, String originalKey, String uploadKey, Instant createdAt) {
            this.episodeId = episodeId;
            this.authorId = authorId;
            this.name = name;
            this.trackName = trackName;
            this.origin = origin;
            this.state = state;
            this.sourceRate = sourceRate;
            this.sourceChannels = sourceChannels;
            this.originalKey = originalKey;
            this.uploadKey = uploadKey;
            this.createdAt = createdAt;
        }
    }

    @Insert("""
            INSERT INTO take (episode_id, author_id, name, track_name, origin, state, source_rate, source_channels,
                              original_key, upload_key, last_sign_at, created_at, lead_source_frames, place_frame,
                              line_id, microphone, placing, made_from, derivation, drift_ppm, together, landed)
            VALUES (#{episodeId}, #{authorId}, #{name}, #{trackName}, #{origin}, #{state}, #{sourceRate},
                    #{sourceChannels}, #{originalKey}, #{uploadKey}, #{createdAt}, #{createdAt}, #{leadSourceFrames},
                    #{placeFrame}, #{lineId}, #{microphone}, #{placing},
                    #{madeFrom}, #{derivation}, #{driftPpm}, #{together}, FALSE)
            """)
    @Options(useGeneratedKeys = true, keyProperty = "id")
    void add(NewTake take);

    @Select(TAKE + "WHERE id = #{id}")
    Optional<Take> find(long id);

    @Select(TAKE + "WHERE id = #{id} FOR UPDATE")
    Optional<Take> lock(long id);

    @Select(TAKE + "WHERE upload_key = #{uploadKey} FOR UPDATE")
    Optional<Take> lockByUploadKey(String uploadKey);

    @Update("UPDATE take SET last_sign_at = #{at} WHERE id = #{id}")
    void sign(long id, Instant at);

    @Select("SELECT recent_peaks FROM take WHERE id = #{id}")
    String recentPeaks(long id);

    @Update("UPDATE take SET last_sign_at = #{at}, recent_peaks = #{peaks} WHERE id = #{id}")
    void heard(long id, Instant at, String peaks);

    /** A recording that goes on, with its last peaks. */
    record Running(long episodeId, String recentPeaks, Instant createdAt) {
    }

    @Select("""
            SELECT t.episode_id, t.recent_peaks, t.created_at
            FROM take t JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id
            WHERE crew.class_id = #{classId} AND t.state = 'RECORDING' AND t.last_sign_at > #{after} ORDER BY t.id
            """)
    List<Running> runningOfClass(long classId, Instant after);

    @Select(TAKE + "WHERE episode_id = #{episodeId} ORDER BY created_at DESC, id DESC")
    List<Take> ofEpisode(long episodeId);

    @Select(TAKE + """
            WHERE id IN (SELECT max(t.id) FROM take t
              JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} AND t.state = 'READY' AND t.origin <> 'SHELF' GROUP BY t.episode_id)
            """)
    List<Take> newestOfClass(long classId);

    @Select("SELECT count(*) FROM take WHERE episode_id = #{episodeId} AND origin = #{origin}")
    int count(long episodeId, Take.Origin origin);

    @Insert("""
            INSERT IGNORE INTO take_chunk (take_id, number, first_frame, frames, pcm)
            VALUES (#{takeId}, #{number}, #{firstFrame}, #{frames}, #{pcm})
            """)
    int addChunk(long takeId, int number, long firstFrame, int frames, byte[] pcm);

    @Select("SELECT number, first_frame, frames FROM take_chunk WHERE take_id = #{takeId} ORDER BY number")
    List<ChunkFacts> chunks(long takeId);

    @Select("SELECT pcm FROM take_chunk WHERE take_id = #{takeId} AND number = #{number}")
    ChunkPcm pcm(long takeId, int number);

    @Delete("DELETE FROM take_chunk WHERE take_id = #{takeId}")
    void deleteChunks(long takeId);

    @Update("UPDATE take SET state = 'ARRIVED', source_frames = #{sourceFrames} WHERE id = #{id} AND state = 'RECORDING'")
    int arrived(long id, long sourceFrames);

    /** @param before the sound it had, which another run may have changed: null for none */
    @Update("""
            UPDATE take SET state = 'READY', source_rate = #{take.sourceRate}, source_channels = #{take.sourceChannels},
                   original_key = #{take.originalKey}, sound_key = #{take.soundKey}, skyline_key = #{take.skylineKey},
                   channels = #{take.channels}, frames = #{take.frames}, missing = #{take.missing}, lead_frames = #{take.leadFrames},
                   upload_key = NULL
            WHERE id = #{take.id} AND state IN ('ARRIVED', 'READY') AND sound_key <=> #{before}
            """)
    int ready(Take take, String before);

    @Update("""
            UPDATE take SET clipped = #{clipped}, noticed = #{noticed}, room_frame = #{roomFrame}
            WHERE id = #{id} AND state = 'READY' AND clipped IS NULL
            """)
    int measured(long id, String clipped, StereoFinder.Noticed noticed, Long roomFrame);

    @Select(TAKE + "WHERE episode_id = #{episodeId} AND line_id = #{lineId} AND state = 'READY' ORDER BY id")
    List<Take> ofLine(long episodeId, long lineId);

    @Select("""
            SELECT count(*) FROM brief_line l JOIN crew ON crew.class_id = l.class_id JOIN episode e ON e.crew_id = crew.id
            WHERE l.id = #{lineId} AND e.id = #{episodeId}
            """)
    int linesOfEpisode(long lineId, long episodeId);

    @Select(TAKE + "WHERE episode_id = #{episodeId} AND state = 'READY' AND NOT landed ORDER BY id")
    List<Take> toLand(long episodeId);

    /** A take, the one that it was made of, and all that were made of that: they hold the same voices. */
    @Select("""
            WITH RECURSIVE up AS (SELECT id, made_from FROM take WHERE id = #{takeId}
                                  UNION SELECT t.id, t.made_from FROM take t JOIN up ON t.id = up.made_from),
                 down AS (SELECT id FROM up WHERE made_from IS NULL UNION SELECT t.id FROM take t JOIN down ON t.made_from = down.id)
            """ + TAKE + "WHERE id IN (SELECT id FROM down) AND state <> 'ERASED' ORDER BY id")
    List<Take> family(long takeId);

    @Select("SELECT id FROM take WHERE made_from = #{takeId}")
    List<Long> madeFrom(long takeId);

    @Update("UPDATE take SET landed = TRUE WHERE id = #{id}")
    void landed(long id);

    /** How many that were brought in before a take, for the same track, are not ready yet. */
    @Select("""
            SELECT count(*) FROM take WHERE episode_id = #{episodeId} AND track_name = #{trackName} AND id < #{id}
              AND origin = 'BROUGHT_IN' AND placing = 'BEHIND' AND state = 'ARRIVED'
            """)
    int onTheWayBefore(Take take);

    @Update("UPDATE take SET track_name = #{trackName} WHERE id = #{id}")
    void landedOn(long id, String trackName);

    @Insert("INSERT IGNORE INTO take_flag (take_id, source_frame) VALUES (#{takeId}, #{sourceFrame})")
    void addFlag(long takeId, long sourceFrame);

    @Select("SELECT source_frame FROM take_flag WHERE take_id = #{takeId} ORDER BY source_frame")
    List<Long> flags(long takeId);

    @Insert("INSERT IGNORE INTO take_voice (take_id, person_id, guest_id) VALUES (#{takeId}, #{personId}, #{guestId})")
    void addVoice(long takeId, Long personId, Long guestId);

    @Insert("INSERT INTO take_voice (take_id, person_id, guest_id) SELECT #{toTake}, person_id, guest_id FROM take_voice WHERE take_id = #{fromTake}")
    void copyVoices(long fromTake, long toTake);

    /** What was begun in an episode on one word. */
    @Select(TAKE + "WHERE together = #{word} AND episode_id = #{episodeId} ORDER BY id")
    List<Take> together(long episodeId, String word);

    /** Whose voice is in which take of an episode. */
    record Voice(long takeId, String name) {
    }

    @Select("""
            SELECT v.take_id, coalesce(p.name, g.name) AS name
            FROM take_voice v JOIN take t ON t.id = v.take_id
            LEFT JOIN person p ON p.id = v.person_id LEFT JOIN guest g ON g.id = v.guest_id
            WHERE t.episode_id = #{episodeId} ORDER BY v.take_id, name
            """)
    List<Voice> voices(long episodeId);

    @Select("SELECT id, name FROM guest WHERE crew_id = #{crewId} ORDER BY name")
    List<Recording.Guest> guests(long crewId);

    @Insert("""
            INSERT INTO guest (crew_id, name, extent, recorded_by, recorded_at) VALUES (#{crewId}, #{name}, #{extent}, #{by}, #{at})
            ON DUPLICATE KEY UPDATE extent = #{extent}, recorded_by = #{by}, recorded_at = #{at}
            """)
    void addGuest(long crewId, String name, String extent, long by, Instant at);

    @Select("SELECT id FROM take WHERE episode_id = #{episodeId} AND shelf_sound_id = #{shelfSoundId}")
    Optional<Long> ofShelf(long episodeId, long shelfSoundId);

    @Update("""
            UPDATE take SET state = 'READY', landed = TRUE, shelf_sound_id = #{shelfSoundId}, sound_key = #{files.soundKey},
                   skyline_key = #{files.skylineKey}, channels = #{files.channels}, frames = #{files.frames},
                   clipped = #{files.clipped}, missing = '[]'
            WHERE id = #{id}
            """)
    void readyFromShelf(long id, long shelfSoundId, Take.Files files);

    @Update("UPDATE take SET state = 'FAILED', problem = #{problem}, original_key = NULL WHERE id = #{id} AND state <> 'READY'")
    void failed(long id, String problem);

    @Update("""
            UPDATE take SET state = 'ERASED', original_key = NULL, sound_key = NULL, skyline_key = NULL, clipped = NULL, room_frame = NULL,
                   missing = NULL, microphone = NULL, upload_key = NULL, recent_peaks = ''
            WHERE id = #{id}
            """)
    void erased(long id);

    @Delete("DELETE FROM take_flag WHERE take_id = #{takeId}")
    void deleteFlags(long takeId);

    @Insert("INSERT IGNORE INTO erase_request (take_id, asked_by, asked_at) VALUES (#{takeId}, #{askedBy}, #{at})")
    void askToErase(long takeId, long askedBy, Instant at);

    /** A request of a class that has no answer yet. */
    record EraseRequest(long takeId, long episodeId, String takeName, String crewName, String askedBy, Instant askedAt) {
    }

    @Select("""
            SELECT q.take_id, t.episode_id, t.name AS take_name, crew.name AS crew_name, p.name AS asked_by, q.asked_at
            FROM erase_request q JOIN take t ON t.id = q.take_id JOIN episode e ON e.id = t.episode_id
            JOIN crew ON crew.id = e.crew_id JOIN person p ON p.id = q.asked_by
            WHERE crew.class_id = #{classId} AND q.answer IS NULL ORDER BY q.asked_at
            """)
    List<EraseRequest> eraseRequests(long classId);

    @Select("""
            SELECT q.take_id FROM erase_request q JOIN take t ON t.id = q.take_id
            WHERE t.episode_id = #{episodeId} AND q.answer IS NULL
            """)
    Set<Long> askedToErase(long episodeId);

    @Update("""
            UPDATE erase_request SET answer = #{answer}, answered_by = #{by}, answered_at = #{at}
            WHERE take_id = #{takeId} AND answer IS NULL
            """)
    int answerErase(long takeId, String answer, long by, Instant at);

    @Select("""
            SELECT original_key FROM take WHERE original_key IS NOT NULL
            UNION ALL SELECT sound_key FROM take WHERE sound_key IS NOT NULL
            UNION ALL SELECT skyline_key FROM take WHERE skyline_key IS NOT NULL
            """)
    Set<String> soundKeys();
}

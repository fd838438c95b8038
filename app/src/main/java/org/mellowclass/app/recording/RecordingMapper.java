package org.mellowclass.app.recording;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface RecordingMapper {

    String SESSION = "SELECT take_id, sample_rate, last_sign_at, begun_at, source_frames, lead_source_frames, recent_peaks, seal FROM recording ";

    @Insert("""
            INSERT INTO recording (take_id, upload_key, sample_rate, last_sign_at, begun_at, lead_source_frames, together, microphone, seal)
            VALUES (#{takeId}, #{uploadKey}, #{sampleRate}, #{at}, #{begunAt}, #{leadSourceFrames}, #{together}, #{microphone}, #{seal})
            """)
    void add(long takeId, String uploadKey, int sampleRate, long leadSourceFrames, String together, String microphone, byte[] seal, Instant at, Instant begunAt);

    @Select(SESSION + "WHERE take_id = #{takeId}")
    Optional<Session> of(long takeId);

    @Select(SESSION + "WHERE upload_key = #{uploadKey} FOR UPDATE")
    Optional<Session> lock(String uploadKey);

    @Update("UPDATE recording SET last_sign_at = #{at} WHERE take_id = #{takeId}")
    void sign(long takeId, Instant at);

    @Update("UPDATE recording SET last_sign_at = #{at}, recent_peaks = #{peaks} WHERE take_id = #{takeId}")
    void heard(long takeId, Instant at, String peaks);

    @Update("UPDATE recording SET source_frames = #{sourceFrames} WHERE take_id = #{takeId}")
    void ended(long takeId, long sourceFrames);

    @Update("UPDATE recording SET upload_key = NULL WHERE take_id = #{takeId}")
    void closed(long takeId);

    @Delete("DELETE FROM recording WHERE take_id = #{takeId}")
    void forget(long takeId);

    /** A recording that goes on, with its last peaks. */
    record Running(long episodeId, String recentPeaks) {
    }

    @Select("""
            SELECT t.episode_id, r.recent_peaks
            FROM recording r JOIN take t ON t.id = r.take_id JOIN episode e ON e.id = t.episode_id JOIN crew ON crew.id = e.crew_id
            WHERE crew.class_id = #{classId} AND t.state = 'RECORDING' AND t.origin <> 'NOTE' AND r.last_sign_at > #{after} ORDER BY t.id
            """)
    List<Running> runningOfClass(long classId, Instant after);

    /** What was begun on one word with a take, that take among them, in its episode. */
    @Select("""
            SELECT t.id FROM recording r JOIN recording word ON word.together = r.together AND word.take_id = #{takeId}
            JOIN take t ON t.id = r.take_id JOIN take first ON first.id = word.take_id AND first.episode_id = t.episode_id ORDER BY t.id
            """)
    List<Long> together(long takeId);

    @Insert("INSERT IGNORE INTO take_flag (take_id, source_frame) VALUES (#{takeId}, #{sourceFrame})")
    void addFlag(long takeId, long sourceFrame);

    @Select("SELECT source_frame FROM take_flag WHERE take_id = #{takeId} ORDER BY source_frame")
    List<Long> flags(long takeId);

    @Delete("DELETE FROM take_flag WHERE take_id = #{takeId}")
    void deleteFlags(long takeId);

    /** What a chunk is, without its sound. */
    record ChunkFacts(int number, long firstFrame, int frames) {
        long endFrame() {
            return firstFrame + frames;
        }
    }

    /** The sound of a chunk. */
    record ChunkPcm(byte[] pcm) {
    }

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
}

package org.mellowclass.app.brief;

import java.util.List;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface BriefMapper {

    String BRIEF = """
            SELECT b.class_id, b.version, b.project, b.story, b.loudness_lufs, b.ceiling_dbtp, b.shortest_frames,
                   b.longest_frames, b.due_day, b.output_format, b.recipe, b.actions
            FROM brief b
            """;

    @Select(BRIEF + "WHERE class_id = #{classId}")
    Brief find(long classId);

    @Select(BRIEF + """
            JOIN crew ON crew.class_id = b.class_id JOIN episode e ON e.crew_id = crew.id
            WHERE e.id = #{episodeId}
            """)
    Brief ofEpisode(long episodeId);

    @Insert("""
            INSERT INTO brief (class_id, version, project, story, loudness_lufs, ceiling_dbtp, shortest_frames, longest_frames,
                               due_day, output_format, recipe, actions)
            VALUES (#{classId}, #{version}, #{project}, #{story}, #{loudnessLufs}, #{ceilingDbtp}, #{shortestFrames},
                    #{longestFrames}, #{dueDay}, #{outputFormat}, #{recipe}, #{actions})
            """)
    void add(Brief brief);

    /** Changes the brief if its version is the one before. */
    @Update("""
            UPDATE brief SET version = #{version}, project = #{project}, story = #{story}, loudness_lufs = #{loudnessLufs},
                   ceiling_dbtp = #{ceilingDbtp}, shortest_frames = #{shortestFrames}, longest_frames = #{longestFrames},
                   due_day = #{dueDay}, output_format = #{outputFormat}, recipe = #{recipe}, actions = #{actions}
            WHERE class_id = #{classId} AND version = #{version} - 1
            """)
    int change(Brief brief);

    @Select("SELECT id, name, shortest_frames, longest_frames FROM brief_part WHERE class_id = #{classId} ORDER BY position")
    List<Part> parts(long classId);

    @Select("SELECT id, part_id, words, cue FROM brief_line WHERE class_id = #{classId} ORDER BY position")
    List<ScriptLine> lines(long classId);

    @Select("SELECT id, name, most_points, sentence, levels FROM brief_criterion WHERE class_id = #{classId} ORDER BY position")
    List<Criterion> rubric(long classId);

    @Select("""
            SELECT id, track_name, sound_id, excerpt_id, start_frame, gain_db FROM brief_clip
            WHERE class_id = #{classId} ORDER BY position
            """)
    List<StarterClip> starter(long classId);

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

    @Insert("""
            INSERT INTO brief_part (class_id, position, name, shortest_frames, longest_frames)
            VALUES (#{classId}, #{position}, #{part.name}, #{part.shortestFrames}, #{part.longestFrames})
            """)
    @Options(useGeneratedKeys = true, keyProperty = "row.id")
    void addPart(NewRow row, long classId, int position, Part part);

    @Update("""
            UPDATE brief_part SET position = #{position}, name = #{part.name}, shortest_frames = #{part.shortestFrames},
                   longest_frames = #{part.longestFrames}
            WHERE id = #{part.id} AND class_id = #{classId}
            """)
    int changePart(long classId, int position, Part part);

    @Delete("DELETE FROM brief_part WHERE id = #{id}")
    void deletePart(long id);

    @Insert("""
            INSERT INTO brief_line (class_id, position, part_id, words, cue)
            VALUES (#{classId}, #{position}, #{line.partId}, #{line.words}, #{line.cue})
            """)
    void addLine(long classId, int position, ScriptLine line);

    @Update("""
            UPDATE brief_line SET position = #{position}, part_id = #{line.partId}, words = #{line.words}, cue = #{line.cue}
            WHERE id = #{line.id} AND class_id = #{classId}
            """)
    int changeLine(long classId, int position, ScriptLine line);

    @Delete("DELETE FROM brief_line WHERE id = #{id}")
    void deleteLine(long id);

    @Delete("DELETE FROM brief_criterion WHERE class_id = #{classId}")
    void deleteRubric(long classId);

    @Insert("""
            INSERT INTO brief_criterion (class_id, position, name, most_points, sentence, levels)
            VALUES (#{classId}, #{position}, #{criterion.name}, #{criterion.mostPoints}, #{criterion.sentence}, #{criterion.levels})
            """)
    void addCriterion(long classId, int position, Criterion criterion);

    @Delete("DELETE FROM brief_clip WHERE class_id = #{classId}")
    void deleteStarter(long classId);

    @Insert("""
            INSERT INTO brief_clip (class_id, position, track_name, sound_id, excerpt_id, start_frame, gain_db)
            VALUES (#{classId}, #{position}, #{clip.trackName}, #{clip.soundId}, #{clip.excerptId}, #{clip.startFrame}, #{clip.gainDb})
            """)
    void addStarterClip(long classId, int position, StarterClip clip);

    /** Who has which part in which crew of a class. */
    record Owner(long episodeId, String crewName, long partId, long personId, String personName) {
    }

    @Select("""
            SELECT o.episode_id, crew.name AS crew_name, o.part_id, o.person_id, p.name AS person_name
            FROM part_owner o JOIN episode e ON e.id = o.episode_id JOIN crew ON crew.id = e.crew_id
            JOIN person p ON p.id = o.person_id
            WHERE crew.class_id = #{classId} ORDER BY crew.id, o.part_id
            """)
    List<Owner> owners(long classId);

    @Insert("""
            INSERT INTO part_owner (episode_id, part_id, person_id) VALUES (#{episodeId}, #{partId}, #{personId})
            ON DUPLICATE KEY UPDATE person_id = #{personId}
            """)
    void give(long episodeId, long partId, long personId);

    @Delete("DELETE FROM part_owner WHERE episode_id = #{episodeId} AND part_id = #{partId}")
    void takeBack(long episodeId, long partId);

    /** A crew of a class, and whether it has begun: whether anybody has made a take or an edit. */
    record Begun(String crewName, boolean begun) {
    }

    @Select("""
            SELECT crew.name AS crew_name, EXISTS (SELECT 1 FROM take t WHERE t.episode_id = e.id AND t.origin <> 'SHELF')
                   OR EXISTS (SELECT 1 FROM revision r WHERE r.episode_id = e.id AND r.seq > 1) AS begun
            FROM crew JOIN episode e ON e.crew_id = crew.id WHERE crew.class_id = #{classId} ORDER BY crew.id
            """)
    List<Begun> crews(long classId);
}

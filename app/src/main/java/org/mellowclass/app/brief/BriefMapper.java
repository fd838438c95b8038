package org.mellowclass.app.brief;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface BriefMapper {

    @Select("""
            SELECT class_id, project, story, loudness_lufs, ceiling_dbtp, shortest_frames, longest_frames, due_day
            FROM brief WHERE class_id = #{classId}
            """)
    Brief find(long classId);

    @Select("""
            SELECT b.class_id, b.project, b.story, b.loudness_lufs, b.ceiling_dbtp, b.shortest_frames, b.longest_frames,
                   b.due_day
            FROM brief b JOIN crew ON crew.class_id = b.class_id JOIN episode e ON e.crew_id = crew.id
            WHERE e.id = #{episodeId}
            """)
    Brief ofEpisode(long episodeId);

    @Insert("""
            INSERT INTO brief (class_id, project, story, loudness_lufs, ceiling_dbtp, shortest_frames, longest_frames, due_day)
            VALUES (#{classId}, #{project}, #{story}, #{loudnessLufs}, #{ceilingDbtp}, #{shortestFrames},
                    #{longestFrames}, #{dueDay})
            """)
    void add(Brief brief);
}

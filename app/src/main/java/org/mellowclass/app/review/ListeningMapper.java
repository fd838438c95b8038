package org.mellowclass.app.review;

import java.time.Instant;
import java.util.List;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface ListeningMapper {

    record Row(long handInId, long startFrame, long endFrame) {
    }

    /** Sent twice is heard once. */
    @Insert("""
            INSERT IGNORE INTO heard_span (hand_in_id, person_id, client_id, start_frame, end_frame, heard_at)
            VALUES (#{handInId}, #{personId}, #{clientId}, #{startFrame}, #{endFrame}, #{at})
            """)
    int add(long handInId, long personId, String clientId, long startFrame, long endFrame, Instant at);

    @Select("SELECT coalesce(sum(end_frame - start_frame), 0) FROM heard_span WHERE person_id = #{personId} AND heard_at > #{since} AND client_id <> #{clientId}")
    long framesSince(long personId, Instant since, String clientId);

    @Select("SELECT count(*) FROM heard_span WHERE hand_in_id = #{handInId} AND person_id = #{personId}")
    int count(long handInId, long personId);

    @Select("""
            SELECT s.hand_in_id, s.start_frame, s.end_frame FROM heard_span s JOIN hand_in h ON h.id = s.hand_in_id
            WHERE h.episode_id = #{episodeId} AND s.person_id = #{personId} ORDER BY s.hand_in_id, s.start_frame
            """)
    List<Row> ofPerson(long episodeId, long personId);

    /** Of all who teach. */
    @Select("""
            SELECT s.hand_in_id, s.start_frame, s.end_frame FROM heard_span s JOIN hand_in h ON h.id = s.hand_in_id JOIN person p ON p.id = s.person_id
            WHERE h.episode_id = #{episodeId} AND p.role = 'TEACHER' ORDER BY s.hand_in_id, s.start_frame
            """)
    List<Row> ofTeachers(long episodeId);

    @Update("UPDATE hand_in SET unheard_reason = #{reason} WHERE id = #{handInId}")
    void letUnheardThrough(long handInId, String reason);
}

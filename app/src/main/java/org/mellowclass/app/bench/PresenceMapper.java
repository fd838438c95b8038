package org.mellowclass.app.bench;

import java.time.Instant;
import java.util.List;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface PresenceMapper {

    @Insert("""
            INSERT INTO presence (episode_id, person_id, frame, seen_at) VALUES (#{episodeId}, #{personId}, #{frame}, #{at})
            ON DUPLICATE KEY UPDATE frame = #{frame}, seen_at = #{at}
            """)
    void here(long episodeId, long personId, long frame, Instant at);

    @Select("""
            SELECT person.id AS person_id, person.name, presence.frame FROM presence JOIN person ON person.id = presence.person_id
            WHERE presence.episode_id = #{episodeId} AND presence.person_id <> #{personId}
            ORDER BY person.name, person.id
            """)
    List<Presence.Somebody> others(long episodeId, long personId);

    @Delete("DELETE FROM presence WHERE episode_id = #{episodeId} AND seen_at < #{before}")
    void forget(long episodeId, Instant before);

    @Delete("DELETE FROM presence WHERE episode_id = #{episodeId} AND person_id = #{personId}")
    void gone(long episodeId, long personId);
}

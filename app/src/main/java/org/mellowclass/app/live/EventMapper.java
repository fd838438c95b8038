package org.mellowclass.app.live;

import java.time.Instant;
import java.util.List;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface EventMapper {

    record Event(long id, String topic, long revision) {
    }

    @Insert("INSERT INTO event (topic, revision, created_at) VALUES (#{topic}, #{revision}, #{at})")
    void add(String topic, long revision, Instant at);

    @Insert("""
            INSERT INTO event (topic, revision, created_at)
            SELECT concat('board-', crew.class_id), e.id, #{at} FROM episode e JOIN crew ON crew.id = e.crew_id WHERE e.id = #{episodeId}
            """)
    void addForBoard(long episodeId, Instant at);

    @Select("SELECT coalesce(max(id), 0) FROM event")
    long newest();

    @Select("SELECT id, topic, revision FROM event WHERE id > #{id} ORDER BY id")
    List<Event> since(long id);

    @Delete("DELETE FROM event WHERE created_at < #{before}")
    void forget(Instant before);
}

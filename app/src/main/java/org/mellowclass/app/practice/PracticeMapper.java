package org.mellowclass.app.practice;

import java.util.Optional;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface PracticeMapper {

    @Select("""
            SELECT e.id FROM episode e JOIN crew ON crew.id = e.crew_id JOIN crew_member m ON m.crew_id = crew.id
            JOIN school_class c ON c.id = crew.class_id AND c.practice AND c.gone_at IS NULL WHERE m.person_id = #{studentId}
            """)
    Optional<Long> episodeOf(long studentId);

    /** Held until the transaction ends, so that a double press makes one. */
    @Select("SELECT id FROM person WHERE id = #{studentId} FOR UPDATE")
    Long hold(long studentId);

    @Select("SELECT id FROM school WHERE id = #{schoolId} FOR UPDATE")
    Long holdSchool(long schoolId);

    @Select("SELECT id FROM school_class WHERE school_id = #{schoolId} AND practice AND gone_at IS NULL ORDER BY id LIMIT 1")
    Optional<Long> classOf(long schoolId);

    @Select("SELECT EXISTS (SELECT 1 FROM take WHERE episode_id = #{episodeId})")
    boolean hasTakes(long episodeId);

    /** The first revision in which something stands on the page: the voice to practise with has landed. */
    @Select("SELECT min(seq) FROM revision WHERE episode_id = #{episodeId} AND edit LIKE '{\"type\":\"lay-%'")
    Optional<Long> firstLaid(long episodeId);
}

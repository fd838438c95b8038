package org.mellowclass.app.feed;

import java.util.Optional;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface AirRuleMapper {

    /** @param mustBeGood kinds of readings, with commas between them */
    record Row(String mustBeGood, boolean leadOnly) {
    }

    @Select("SELECT must_be_good, lead_only FROM air_rule WHERE class_id = #{classId}")
    Optional<Row> find(long classId);

    @Insert("""
            INSERT INTO air_rule (class_id, must_be_good, lead_only) VALUES (#{classId}, #{mustBeGood}, #{leadOnly})
            ON DUPLICATE KEY UPDATE must_be_good = #{mustBeGood}, lead_only = #{leadOnly}
            """)
    void put(long classId, String mustBeGood, boolean leadOnly);
}

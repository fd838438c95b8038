package org.mellowclass.app.cleanup;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface ClassRecipeMapper {

    @Select("SELECT id, class_id, name, advice, recipe AS text FROM class_recipe WHERE class_id = #{classId} ORDER BY name")
    List<ClassRecipe> ofClass(long classId);

    @Select("SELECT id, class_id, name, advice, recipe AS text FROM class_recipe WHERE id = #{id}")
    Optional<ClassRecipe> find(long id);

    /** One of the same name is replaced. */
    @Insert("""
            INSERT INTO class_recipe (class_id, name, advice, recipe, created_at) VALUES (#{classId}, #{name}, #{advice}, #{text}, #{at})
            ON DUPLICATE KEY UPDATE advice = #{advice}, recipe = #{text}
            """)
    void put(long classId, String name, String advice, String text, Instant at);

    @Delete("DELETE FROM class_recipe WHERE id = #{id}")
    void delete(long id);
}

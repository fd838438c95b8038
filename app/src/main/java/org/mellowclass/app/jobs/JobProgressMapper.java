package org.mellowclass.app.jobs;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface JobProgressMapper {

    @Insert("""
            INSERT INTO job_progress (job, permille) VALUES (#{job}, #{permille})
            ON DUPLICATE KEY UPDATE permille = #{permille}, waits_for = NULL
            """)
    void put(String job, int permille);

    @Insert("""
            INSERT INTO job_progress (job, permille, waits_for) VALUES (#{job}, 0, #{fault})
            ON DUPLICATE KEY UPDATE permille = 0, waits_for = #{fault}
            """)
    void waits(String job, Fault fault);

    @Select("SELECT waits_for FROM job_progress WHERE job = #{job}")
    Fault waitsFor(String job);

    @Select("SELECT permille FROM job_progress WHERE job = #{job}")
    Integer get(String job);

    /** What a node had begun is anybody's again. */
    @Update("UPDATE scheduled_tasks SET picked = FALSE, picked_by = NULL, last_heartbeat = NULL, version = version + 1 WHERE picked AND picked_by = #{node}")
    int free(String node);

    @Delete("DELETE FROM job_progress WHERE job = #{job}")
    void delete(String job);
}

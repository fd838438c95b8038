package org.mellowclass.app.bench;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface FinishMapper {

    record Row(long revisionSeq, int gainMillidb, int ceilingMillidbtp) {

        Finish finish() {
            return new Finish(gainMillidb, ceilingMillidbtp);
        }
    }

    record ReportRow(long reportSeq, String report) {
    }

    @Select("SELECT report_seq, report FROM finish WHERE episode_id = #{episodeId} AND report_seq IS NOT NULL")
    Optional<ReportRow> report(long episodeId);

    @Update("UPDATE finish SET report = #{report}, report_seq = #{revision} WHERE episode_id = #{episodeId} AND coalesce(report_seq, 0) <= #{revision}")
    void keepReport(long episodeId, long revision, String report);

    @Select("SELECT revision_seq, gain_millidb, ceiling_millidbtp FROM finish WHERE episode_id = #{episodeId}")
    Optional<Row> find(long episodeId);

    /** An older revision never takes the place of a newer one. */
    @Insert("""
            INSERT INTO finish (episode_id, revision_seq, gain_millidb, ceiling_millidbtp, measured_at)
            VALUES (#{episodeId}, #{revision}, #{finish.gainMilliDb}, #{finish.ceilingMilliDbtp}, #{at})
            ON DUPLICATE KEY UPDATE gain_millidb = IF(revision_seq <= #{revision}, #{finish.gainMilliDb}, gain_millidb),
              ceiling_millidbtp = IF(revision_seq <= #{revision}, #{finish.ceilingMilliDbtp}, ceiling_millidbtp),
              measured_at = IF(revision_seq <= #{revision}, #{at}, measured_at), revision_seq = greatest(revision_seq, #{revision})
            """)
    void put(long episodeId, long revision, Finish finish, Instant at);

    @Select("""
            SELECT r.episode_id FROM revision r LEFT JOIN finish f ON f.episode_id = r.episode_id WHERE r.created_at > #{since}
            GROUP BY r.episode_id HAVING max(r.seq) > coalesce(max(f.report_seq), 0)
            """)
    List<Long> unread(Instant since);

    record ClassRow(long episodeId, long reportSeq, String report) {
    }

    @Select("""
            SELECT f.episode_id, f.report_seq, f.report FROM finish f JOIN episode e ON e.id = f.episode_id JOIN crew ON crew.id = e.crew_id
            WHERE crew.class_id = #{classId} AND f.report_seq IS NOT NULL
            """)
    List<ClassRow> reportsOfClass(long classId);
}

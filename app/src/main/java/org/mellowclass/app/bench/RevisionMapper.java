package org.mellowclass.app.bench;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface RevisionMapper {

    String REVISION = "SELECT episode_id, seq, timeline_hash, undo_to, redo_to FROM revision ";

    record Revision(long episodeId, long seq, String timelineHash, long undoTo, long redoTo) {
    }

    /** What a revision was, and where it has taken the time of tracks, as {@link StoredMaps} writes it. */
    record Step(String timelineHash, String maps) {
    }

    @Select("SELECT timeline_hash, maps FROM revision WHERE episode_id = #{episodeId} AND seq > #{from} AND seq <= #{to} ORDER BY seq")
    List<Step> steps(long episodeId, long from, long to);

    record StoredTimeline(int formatVersion, byte[] body) {
    }

    @Select(REVISION + "WHERE episode_id = #{episodeId} ORDER BY seq DESC LIMIT 1")
    Optional<Revision> newest(long episodeId);

    @Select(REVISION + "WHERE episode_id = #{episodeId} AND seq = #{seq}")
    Optional<Revision> find(long episodeId, long seq);

    @Select("SELECT EXISTS (SELECT 1 FROM revision WHERE episode_id = #{episodeId} AND client_id = #{clientId})")
    boolean known(long episodeId, String clientId);

    /** Somebody who made an edit. */
    record Author(long id, String name) {
    }

    /** Who made the newest edit that led to a timeline of an episode. */
    @Select("""
            SELECT person.id, person.name FROM revision r JOIN person ON person.id = r.author_id
            WHERE r.episode_id = #{episodeId} AND r.timeline_hash = #{hash} AND r.edit IS NOT NULL
            ORDER BY r.seq DESC LIMIT 1
            """)
    Optional<Author> authorOfEditBehind(long episodeId, String hash);

    @Insert("""
            INSERT INTO revision (episode_id, seq, timeline_hash, edit, maps, author_id, client_id, undo_to, redo_to, created_at)
            VALUES (#{revision.episodeId}, #{revision.seq}, #{revision.timelineHash}, #{edit}, #{maps}, #{authorId}, #{clientId},
                    #{revision.undoTo}, #{revision.redoTo}, #{createdAt})
            """)
    void add(Revision revision, String edit, String maps, Long authorId, String clientId, Instant createdAt);

    @Insert("INSERT IGNORE INTO timeline (hash, format_version, body) VALUES (#{hash}, #{formatVersion}, #{body})")
    void addTimeline(String hash, int formatVersion, byte[] body);

    @Select("SELECT format_version, body FROM timeline WHERE hash = #{hash}")
    Optional<StoredTimeline> timeline(String hash);

    @Select("SELECT DISTINCT timeline_hash FROM revision WHERE episode_id = #{episodeId}")
    List<String> hashes(long episodeId);

    @Update("UPDATE revision SET timeline_hash = #{after} WHERE episode_id = #{episodeId} AND timeline_hash = #{before}")
    void retell(long episodeId, String before, String after);

    /** A revision as the log tells of it; an undo and a redo have no edit, and the beginning has neither that nor an author. */
    record Logged(long seq, String edit, long redoTo, String author, Instant createdAt, String name) {
    }

    @Select("""
            SELECT r.seq, r.edit, r.redo_to, person.name AS author, r.created_at, v.name FROM revision r LEFT JOIN person ON person.id = r.author_id
            LEFT JOIN named_version v ON v.episode_id = r.episode_id AND v.revision_seq = r.seq
            WHERE r.episode_id = #{episodeId} AND r.seq < #{before} ORDER BY r.seq DESC LIMIT #{most}
            """)
    List<Logged> log(long episodeId, long before, int most);

    record NamedVersion(long revisionSeq, String name) {
    }

    @Select("SELECT revision_seq, name FROM named_version WHERE episode_id = #{episodeId} ORDER BY revision_seq DESC")
    List<NamedVersion> versions(long episodeId);

    @Insert("INSERT INTO named_version (episode_id, revision_seq, name) VALUES (#{episodeId}, #{seq}, #{name}) ON DUPLICATE KEY UPDATE name = #{name}")
    void nameVersion(long episodeId, long seq, String name);

    @Delete("DELETE FROM named_version WHERE episode_id = #{episodeId} AND revision_seq = #{seq}")
    void unnameVersion(long episodeId, long seq);

    record StoredEdit(long seq, String edit) {
    }

    @Select("SELECT seq, edit FROM revision WHERE episode_id = #{episodeId} AND edit IS NOT NULL")
    List<StoredEdit> edits(long episodeId);

    @Update("UPDATE revision SET edit = #{edit} WHERE episode_id = #{episodeId} AND seq = #{seq}")
    void retellEdit(long episodeId, long seq, String edit);

    @Delete("""
            DELETE FROM timeline WHERE hash = #{hash} AND NOT EXISTS (SELECT 1 FROM revision r WHERE r.timeline_hash = #{hash})
              AND NOT EXISTS (SELECT 1 FROM hand_in h WHERE h.timeline_hash = #{hash})
            """)
    void dropTimeline(String hash);
}

package org.mellowclass.app.feed;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.store.NamedSounds;

@Mapper
interface FeedMapper extends NamedSounds {

    String PUBLICATION = """
            SELECT p.id, p.episode_id, p.hand_in_id, p.public_key, p.title, p.description, p.slug, p.state, p.sound_key,
                   p.bytes, p.frames, p.loudness_lufs, p.true_peak_dbtp, p.created_at, p.on_air_at, p.off_air_at, p.next_hand_in_id, p.version
            FROM publication p
            """;
    String OF_FEED = """
            JOIN episode e ON e.id = p.episode_id JOIN crew ON crew.id = e.crew_id
            JOIN feed f ON f.class_id = crew.class_id JOIN school_class c ON c.id = f.class_id AND c.gone_at IS NULL
            JOIN school s ON s.id = c.school_id AND s.gone_at IS NULL
            WHERE f.public_key = #{feedKey}
            """;

    /** A feed as listeners see it. */
    record Feed(long classId, String publicKey, String title, String description, String schoolName, String timeZone, String contact, boolean indexed) {
    }

    @Insert("INSERT IGNORE INTO feed (class_id, public_key) VALUES (#{classId}, #{publicKey})")
    void addFeed(long classId, String publicKey);

    String FEED = """
            SELECT f.class_id, f.public_key, b.project AS title, b.story AS description, s.name AS school_name, s.time_zone, s.contact, s.indexed
            FROM feed f JOIN school_class c ON c.id = f.class_id AND c.gone_at IS NULL JOIN school s ON s.id = c.school_id AND s.gone_at IS NULL
            JOIN brief b ON b.class_id = c.id
            """;

    @Select(FEED + "WHERE f.public_key = #{publicKey}")
    Optional<Feed> feed(String publicKey);

    @Select(FEED + "WHERE f.class_id = #{classId}")
    Optional<Feed> feedOfClass(long classId);

    @Select(PUBLICATION + OF_FEED + "AND p.state = 'ON_AIR' ORDER BY p.on_air_at DESC, p.id DESC")
    List<Publication> onAir(String feedKey);

    @Select(PUBLICATION + OF_FEED + "AND p.public_key = #{publicKey}")
    Optional<Publication> ofFeed(String feedKey, String publicKey);

    @Select(PUBLICATION + "WHERE p.episode_id = #{episodeId} ORDER BY p.id DESC LIMIT 1")
    Optional<Publication> newest(long episodeId);

    /** As {@link #newest}, held until the transaction ends: it cannot go on air meanwhile. */
    @Select(PUBLICATION + "WHERE p.episode_id = #{episodeId} ORDER BY p.id DESC LIMIT 1 FOR UPDATE")
    Optional<Publication> holdNewest(long episodeId);

    @Select(PUBLICATION + """
            WHERE p.id IN (SELECT max(n.id) FROM publication n
              JOIN episode e ON e.id = n.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} GROUP BY n.episode_id)
            """)
    List<Publication> newestOfClass(long classId);

    @Select(PUBLICATION + "WHERE p.id = #{id}")
    Optional<Publication> find(long id);

    @Insert("""
            INSERT INTO publication (episode_id, hand_in_id, public_key, title, description, slug, state,
                                     consent_confirmed_by, created_at)
            VALUES (#{episodeId}, #{handInId}, #{publicKey}, #{title}, #{description}, #{slug}, 'PREPARING',
                    #{teacherId}, #{createdAt})
            """)
    void add(long episodeId, long handInId, String publicKey, String title, String description, String slug,
             long teacherId, Instant createdAt);

    @Update("""
            UPDATE publication SET state = 'ON_AIR', sound_key = #{soundKey}, bytes = #{bytes}, frames = #{frames},
                   loudness_lufs = #{loudnessLufs}, true_peak_dbtp = #{truePeakDbtp}, on_air_at = #{at}
            WHERE id = #{id} AND state = 'PREPARING'
            """)
    int onAirNow(long id, String soundKey, long bytes, long frames, double loudnessLufs, double truePeakDbtp, Instant at);

    /** A correction that could not be made leaves what is on air as it is. */
    @Update("""
            UPDATE publication SET state = IF(state = 'PREPARING', 'FAILED', state), next_hand_in_id = NULL WHERE id = #{id} AND state IN ('PREPARING', 'ON_AIR')
            """)
    void failed(long id);

    @Update("UPDATE publication SET next_hand_in_id = #{handInId} WHERE id = #{id} AND state = 'ON_AIR'")
    void correct(long id, long handInId);

    @Update("""
            UPDATE publication SET hand_in_id = next_hand_in_id, next_hand_in_id = NULL, version = version + 1, sound_key = #{soundKey}, bytes = #{bytes},
                   frames = #{frames}, loudness_lufs = #{loudnessLufs}, true_peak_dbtp = #{truePeakDbtp}
            WHERE id = #{id} AND state = 'ON_AIR' AND next_hand_in_id = #{handInId}
            """)
    int corrected(long id, long handInId, String soundKey, long bytes, long frames, double loudnessLufs, double truePeakDbtp);

    @Update("""
            UPDATE publication SET state = 'OFF_AIR', sound_key = NULL, next_hand_in_id = NULL, off_air_at = #{at}
            WHERE id = #{id} AND state IN ('PREPARING', 'ON_AIR')
            """)
    int offAir(long id, Instant at);

    @Override
    @Select("""
            SELECT p.sound_key FROM publication p WHERE p.sound_key IS NOT NULL
            """)
    Set<String> keys();

    @Override
    @Select("""
            SELECT p.sound_key FROM publication p WHERE p.episode_id = #{episodeId} AND p.sound_key IS NOT NULL
            """)
    Set<String> keysOfEpisode(long episodeId);

    @Override
    @Select("""
            SELECT p.sound_key FROM publication p JOIN episode e ON e.id = p.episode_id JOIN crew ON crew.id = e.crew_id
              WHERE crew.class_id = #{classId} AND p.sound_key IS NOT NULL
            """)
    Set<String> keysOfClass(long classId);
}

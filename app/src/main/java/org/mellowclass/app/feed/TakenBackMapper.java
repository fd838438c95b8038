package org.mellowclass.app.feed;

import java.time.Instant;
import java.util.List;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface TakenBackMapper {

    String LIVE = "SELECT DISTINCT p.episode_id FROM publication p JOIN take t ON t.episode_id = p.episode_id JOIN take_voice v ON v.take_id = t.id WHERE p.state IN ('PREPARING', 'ON_AIR') ";
    /** In one order, so that two never wait for each other. */
    String IN_ORDER = " ORDER BY p.episode_id";

    @Select(LIVE + "AND v.person_id = #{personId}" + IN_ORDER)
    List<Long> liveWithStudent(long personId);

    @Select(LIVE + "AND v.guest_id = #{guestId}" + IN_ORDER)
    List<Long> liveWithGuest(long guestId);

    @Select("SELECT DISTINCT episode_id FROM publication WHERE state IN ('PREPARING', 'ON_AIR') ORDER BY episode_id")
    List<Long> live();

    @Insert("INSERT INTO taken_back (hand_in_id, title, correction, by_id, at) VALUES (#{handInId}, #{title}, #{correction}, #{byId}, #{at})")
    void add(long handInId, String title, boolean correction, Long byId, Instant at);

    String UNREAD = """
            SELECT b.id, e.id AS episode_id, b.title, c.id AS class_id, c.name AS class_name, b.correction, b.at FROM taken_back b JOIN hand_in h ON h.id = b.hand_in_id
            JOIN episode e ON e.id = h.episode_id JOIN crew ON crew.id = e.crew_id JOIN school_class c ON c.id = crew.class_id AND c.gone_at IS NULL
            WHERE b.read_at IS NULL
            """;

    @Select(UNREAD + "AND (c.id = #{classId} OR b.by_id = #{personId}) ORDER BY b.id DESC")
    List<VoicesOnAir.TakenBack> unreadOfClass(long classId, long personId);

    @Select(UNREAD + "AND e.id = #{episodeId} ORDER BY b.id DESC")
    List<VoicesOnAir.TakenBack> unreadOfEpisode(long episodeId);

    @Select(UNREAD + "AND c.school_id = #{schoolId} ORDER BY b.id DESC")
    List<VoicesOnAir.TakenBack> unreadOfSchool(long schoolId);

    @Update("""
            UPDATE taken_back b JOIN hand_in h ON h.id = b.hand_in_id JOIN episode e ON e.id = h.episode_id JOIN crew ON crew.id = e.crew_id
            SET b.read_at = #{at} WHERE b.id = #{id} AND crew.class_id = #{classId} AND b.read_at IS NULL
            """)
    int read(long id, long classId, Instant at);

    @Select("SELECT EXISTS (SELECT 1 FROM class_student WHERE class_id = #{classId} AND person_id = #{personId})")
    boolean isIn(long classId, long personId);

    @Select("SELECT c.school_id FROM episode e JOIN crew ON crew.id = e.crew_id JOIN school_class c ON c.id = crew.class_id WHERE e.id = #{episodeId}")
    long schoolOf(long episodeId);
}

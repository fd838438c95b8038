package org.mellowclass.app.news;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** News are read from what has happened: nothing is written for them. */
@Mapper
interface NewsMapper {

    String OF_EPISODE = """
            , crew.name AS crew_name, e.title, h.number, e.id AS episode_id, h.id AS hand_in_id
            FROM hand_in h JOIN episode e ON e.id = h.episode_id JOIN crew ON crew.id = e.crew_id
            JOIN school_class c ON c.id = crew.class_id AND c.gone_at IS NULL
            """;
    String TAUGHT = "JOIN class_teacher mine ON mine.class_id = c.id AND mine.person_id = #{personId} ";
    String OWN = "JOIN crew_member mine ON mine.crew_id = crew.id AND mine.person_id = #{personId} ";

    String OF_TEACHER = "SELECT 'HANDED_IN' AS kind, h.created_at AS at, NULL AS words" + OF_EPISODE + TAUGHT + """
            WHERE h.state <> 'FAILED' AND h.created_at > #{since}
            UNION ALL
            SELECT 'ON_AIR', p.on_air_at, NULL""" + OF_EPISODE + TAUGHT + """
            JOIN publication p ON p.hand_in_id = h.id WHERE p.state = 'ON_AIR' AND p.on_air_at > #{since}
            UNION ALL
            SELECT 'TO_READ', n.held_at, n.words""" + OF_EPISODE + TAUGHT + """
            JOIN margin_note n ON n.hand_in_id = h.id WHERE n.held_at > #{since}
            UNION ALL
            SELECT 'ANSWER', r.written_at, r.words""" + OF_EPISODE + TAUGHT + """
            JOIN margin_note n ON n.hand_in_id = h.id JOIN note_reply r ON r.note_id = n.id WHERE r.author_id <> #{personId} AND r.written_at > #{since}
            UNION ALL
            SELECT 'TAKEN_BACK', b.at, NULL""" + OF_EPISODE + TAUGHT + """
            JOIN taken_back b ON b.hand_in_id = h.id WHERE b.at > #{since}
            UNION ALL
            SELECT 'TAKEN_BACK_IN_SCHOOL', b.at, NULL""" + OF_EPISODE + """
            JOIN taken_back b ON b.hand_in_id = h.id JOIN person lead ON lead.id = #{personId} AND lead.school_id = c.school_id AND lead.is_lead
            WHERE b.at > #{since} AND NOT EXISTS (SELECT 1 FROM class_teacher t WHERE t.class_id = c.id AND t.person_id = lead.id)
            """;

    String OF_STUDENT = "SELECT h.decision AS kind, h.decided_at AS at, h.sentence AS words" + OF_EPISODE + OWN + """
            WHERE h.decided_at > #{since}
            UNION ALL
            SELECT 'ON_AIR', p.on_air_at, NULL""" + OF_EPISODE + OWN + """
            JOIN publication p ON p.hand_in_id = h.id WHERE p.state = 'ON_AIR' AND p.on_air_at > #{since}
            UNION ALL
            SELECT 'NOTE', n.shown_at, n.words""" + OF_EPISODE + OWN + """
            JOIN margin_note n ON n.hand_in_id = h.id WHERE n.author_id <> #{personId} AND n.shown_at > #{since}
            UNION ALL
            SELECT 'ANSWER', r.written_at, r.words""" + OF_EPISODE + OWN + """
            JOIN margin_note n ON n.hand_in_id = h.id JOIN note_reply r ON r.note_id = n.id
            WHERE n.shown_at IS NOT NULL AND r.author_id <> #{personId} AND r.written_at > #{since}
            UNION ALL
            SELECT 'MARKS', g.sent_at, g.summary""" + OF_EPISODE + OWN + """
            JOIN marking g ON g.hand_in_id = h.id WHERE g.sent_at > #{since}
            UNION ALL
            SELECT 'INVITED', l.invited_at, NULL""" + OF_EPISODE + """
            JOIN early_listener l ON l.episode_id = e.id AND l.until_at > #{now} AND l.invited_at > #{since}
            JOIN crew_member mine ON mine.crew_id = l.crew_id AND mine.person_id = #{personId}
            WHERE h.state = 'READY' AND h.number = (SELECT max(o.number) FROM hand_in o WHERE o.episode_id = e.id AND o.state = 'READY')
            """;
    String NEWEST = "ORDER BY at DESC, hand_in_id DESC LIMIT #{most}";

    @Select(OF_TEACHER + NEWEST)
    List<News.Item> ofTeacher(@Param("personId") long personId, @Param("since") Instant since, @Param("most") int most);

    @Select(OF_STUDENT + NEWEST)
    List<News.Item> ofStudent(@Param("personId") long personId, @Param("since") Instant since, @Param("now") Instant now, @Param("most") int most);

    /** @param seenAt null as long as nothing was seen */
    record Reader(Instant seenAt, News.Mail mail) {
    }

    @Select("SELECT news_seen_at AS seen_at, news_mail AS mail FROM person WHERE id = #{personId}")
    Reader reader(long personId);

    @Update("UPDATE person SET news_seen_at = #{at} WHERE id = #{personId}")
    void seen(long personId, Instant at);

    /** From now on: what has happened before is not sent. */
    @Update("UPDATE person SET news_mail = #{mail}, news_mailed_at = #{at} WHERE id = #{personId}")
    void choose(long personId, News.Mail mail, Instant at);

    /** A teacher who gets news by mail. */
    record Subscriber(long id, long schoolId, String email, String timeZone, News.Mail mail, Instant mailedAt) {
    }

    @Select("""
            SELECT p.id, p.school_id, p.email, s.time_zone, p.news_mail AS mail, p.news_mailed_at AS mailed_at FROM person p JOIN school s ON s.id = p.school_id AND s.gone_at IS NULL
            WHERE p.news_mail <> 'NEVER' AND p.email IS NOT NULL ORDER BY p.id
            """)
    List<Subscriber> subscribers();

    /** Held until the transaction ends, so that two nodes do not send the same. */
    @Select("SELECT news_mailed_at FROM person WHERE id = #{personId} FOR UPDATE")
    Optional<Instant> holdMailedAt(long personId);

    @Update("UPDATE person SET news_mailed_at = #{at} WHERE id = #{personId}")
    void mailed(long personId, Instant at);
}

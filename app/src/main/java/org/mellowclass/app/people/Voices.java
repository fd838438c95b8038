package org.mellowclass.app.people;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Whose voice is in which take: students of the crew, and guests with what they have agreed to. */
@Service
@Transactional
public class Voices {

    private static final int LONGEST_GUEST = 80;

    private final VoiceMapper voices;
    private final Access access;
    private final Clock clock;

    Voices(VoiceMapper voices, Access access, Clock clock) {
        this.voices = voices;
        this.access = access;
        this.clock = clock;
    }

    /** Somebody who speaks for a crew and is none of its students. */
    public record Guest(long id, String name) {
    }

    /** Whose voice is in which take. */
    record Voice(long takeId, String name) {
    }

    @Mapper
    interface VoiceMapper {

        @Insert("INSERT IGNORE INTO take_voice (take_id, person_id, guest_id) VALUES (#{takeId}, #{personId}, #{guestId})")
        void add(long takeId, Long personId, Long guestId);

        @Select("""
                SELECT v.take_id, coalesce(p.name, g.name) AS name
                FROM take_voice v JOIN take t ON t.id = v.take_id
                LEFT JOIN person p ON p.id = v.person_id LEFT JOIN guest g ON g.id = v.guest_id
                WHERE t.episode_id = #{episodeId} ORDER BY v.take_id, name
                """)
        List<Voice> ofEpisode(long episodeId);

        @Select("SELECT id, name FROM guest WHERE crew_id = #{crewId} ORDER BY name")
        List<Guest> guests(long crewId);

        @Insert("""
                INSERT INTO guest (crew_id, name, extent, recorded_by, recorded_at) VALUES (#{crewId}, #{name}, #{extent}, #{by}, #{at})
                ON DUPLICATE KEY UPDATE extent = #{extent}, recorded_by = #{by}, recorded_at = #{at}
                """)
        void addGuest(long crewId, String name, Consent extent, long by, Instant at);
    }

    /**
     * Names the voices in a take, of the crew and its guests only; whoever is signed in if nobody is named.
     */
    public void add(Person viewer, Episode episode, long takeId, Set<Long> personIds, Set<Long> guestIds) {
        access.crewOf(episode).stream().map(Person::id).filter(personIds::contains).forEach(id -> voices.add(takeId, id, null));
        voices.guests(episode.crewId()).stream().map(Guest::id).filter(guestIds::contains).forEach(id -> voices.add(takeId, null, id));
        if (personIds.isEmpty() && guestIds.isEmpty()) {
            voices.add(takeId, viewer.id(), null);
        }
    }

    /** The voices in each take of an episode that has been let through, by name. */
    @Transactional(readOnly = true)
    public Map<Long, List<String>> ofEpisode(long episodeId) {
        return voices.ofEpisode(episodeId).stream().collect(Collectors.groupingBy(Voice::takeId, Collectors.mapping(Voice::name, Collectors.toList())));
    }

    /** The guests of a crew, whose consent has been recorded. */
    @Transactional(readOnly = true)
    public List<Guest> guests(Person viewer, long episodeId) {
        return voices.guests(access.episode(viewer, episodeId).crewId());
    }

    /** Remembers a guest of the crew, with what they have agreed to. */
    public List<Guest> addGuest(Person viewer, long episodeId, String name, Consent extent) {
        Episode episode = access.ownEpisode(viewer, episodeId);
        if (extent == null) {
            throw Refusal.unfit("take.GUEST_CONSENT");
        }
        voices.addGuest(episode.crewId(), Fields.required(name, LONGEST_GUEST, "take.GUEST_NAME"), extent, viewer.id(), clock.instant());
        return voices.guests(episode.crewId());
    }
}

package org.mellowclass.app.people;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.apache.ibatis.annotations.Delete;
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
    private static final Pattern SPEAKER = Pattern.compile("(person|guest)-(\\d{1,18})");

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

    /** Which side of a take a voice is on, where it is on one alone. */
    public enum Side { LEFT, RIGHT }

    /**
     * Whose voice is in which take.
     *
     * @param side null for both
     */
    public record Voice(long takeId, String name, Side side) {
    }

    /** Who may speak for a crew: one of its students or of its guests. */
    public sealed interface Speaker {

        record Student(long personId) implements Speaker {
        }

        record OfGuest(long guestId) implements Speaker {
        }

        /** As a form says it: {@code person-12} or {@code guest-3}; nobody for anything else. */
        static Optional<Speaker> of(String said) {
            Matcher parts = SPEAKER.matcher(said == null ? "" : said);
            if (!parts.matches()) {
                return Optional.empty();
            }
            long id = Long.parseLong(parts.group(2));
            return Optional.of(parts.group(1).equals("person") ? new Student(id) : new OfGuest(id));
        }
    }

    @Mapper
    interface VoiceMapper {

        @Insert("INSERT INTO take_voice (take_id, person_id, guest_id, side) VALUES (#{takeId}, #{personId}, #{guestId}, #{side})")
        void add(long takeId, Long personId, Long guestId, Side side);

        @Delete("DELETE FROM take_voice WHERE take_id = #{takeId}")
        void forget(long takeId);

        @Select("""
                SELECT v.take_id, coalesce(p.name, g.name) AS name, v.side
                FROM take_voice v JOIN take t ON t.id = v.take_id
                LEFT JOIN person p ON p.id = v.person_id LEFT JOIN guest g ON g.id = v.guest_id
                WHERE t.episode_id = #{episodeId} ORDER BY v.take_id, v.side, name
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
        access.crewOf(episode).stream().map(Person::id).filter(personIds::contains).forEach(id -> voices.add(takeId, id, null, null));
        voices.guests(episode.crewId()).stream().map(Guest::id).filter(guestIds::contains).forEach(id -> voices.add(takeId, null, id, null));
        if (personIds.isEmpty() && guestIds.isEmpty()) {
            voices.add(takeId, viewer.id(), null, null);
        }
    }

    /**
     * Names the one voice on each side of a take, instead of those that were named before.
     *
     * @throws Refusal unless both are of the crew or its guests, and are two
     */
    public void onSides(Episode episode, long takeId, Speaker left, Speaker right) {
        if (left.equals(right) || !speaks(episode, left) || !speaks(episode, right)) {
            throw Refusal.unfit("take.TWO_VOICES");
        }
        voices.forget(takeId);
        add(takeId, left, Side.LEFT);
        add(takeId, right, Side.RIGHT);
    }

    private boolean speaks(Episode episode, Speaker speaker) {
        if (speaker instanceof Speaker.Student student) {
            return access.crewOf(episode).stream().anyMatch(person -> person.id() == student.personId());
        }
        return voices.guests(episode.crewId()).stream().anyMatch(guest -> speaker.equals(new Speaker.OfGuest(guest.id())));
    }

    private void add(long takeId, Speaker speaker, Side side) {
        voices.add(takeId, speaker instanceof Speaker.Student student ? student.personId() : null,
                speaker instanceof Speaker.OfGuest guest ? guest.guestId() : null, side);
    }

    /** The voices in each take of an episode that has been let through, the left side first. */
    @Transactional(readOnly = true)
    public Map<Long, List<Voice>> ofEpisode(long episodeId) {
        return voices.ofEpisode(episodeId).stream().collect(Collectors.groupingBy(Voice::takeId));
    }

    /** Somebody who may be chosen as a speaker, with what a form says for them. */
    public record Choice(String said, String name) {
    }

    /** Who may speak in an episode that has been let through: its crew, then the guests. */
    @Transactional(readOnly = true)
    public List<Choice> speakers(Episode episode) {
        return Stream.concat(access.crewOf(episode).stream().map(person -> new Choice("person-" + person.id(), person.name())),
                voices.guests(episode.crewId()).stream().map(guest -> new Choice("guest-" + guest.id(), guest.name()))).toList();
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

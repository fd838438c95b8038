package org.mellowclass.app.people;

import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
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
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.context.ApplicationEventPublisher;
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
    private final ApplicationEventPublisher events;
    private final Clock clock;

    Voices(VoiceMapper voices, Access access, ApplicationEventPublisher events, Clock clock) {
        this.voices = voices;
        this.access = access;
        this.events = events;
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

    /**
     * A voice that is heard in a take, with what was recorded for it.
     *
     * @param personId the student; null for a guest
     * @param onAirName what listeners may read: never a surname
     * @param extent   where it may be heard; null as long as nobody has recorded that
     */
    public record Heard(long takeId, Long personId, String name, String onAirName, Consent extent) {
    }

    /** A take, as far as voices are concerned. */
    public record TakeName(long id, String name) {
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

        /** As {@link Speaker#of} reads them. */
        @Select("SELECT IF(person_id IS NULL, concat('guest-', guest_id), concat('person-', person_id)) FROM take_voice WHERE take_id = #{takeId}")
        List<String> speakersOf(long takeId);

        @Delete("DELETE FROM take_voice WHERE take_id = #{takeId}")
        void forget(long takeId);

        @Select("""
                SELECT v.take_id, coalesce(p.name, g.name) AS name, v.side
                FROM take_voice v JOIN take t ON t.id = v.take_id
                LEFT JOIN person p ON p.id = v.person_id LEFT JOIN guest g ON g.id = v.guest_id
                WHERE t.episode_id = #{episodeId} ORDER BY v.take_id, v.side, name
                """)
        List<Voice> ofEpisode(long episodeId);

        @Update("UPDATE take SET without_voice = #{nobody} WHERE id = #{takeId}")
        void nobodySpeaks(long takeId, boolean nobody);

        @Select("SELECT id, name FROM take WHERE id = #{takeId} AND episode_id = #{episodeId} AND origin NOT IN ('SHELF', 'NOTE') AND state <> 'ERASED' FOR UPDATE")
        Optional<TakeName> lockTake(long takeId, long episodeId);

        @Select("""
                SELECT v.take_id, v.person_id, coalesce(p.name, g.name) AS name, coalesce(p.on_air_name, g.name) AS on_air_name,
                       IF(p.id IS NULL, g.extent, (SELECT extent FROM consent WHERE person_id = p.id ORDER BY id DESC LIMIT 1)) AS extent
                FROM take_voice v JOIN take t ON t.id = v.take_id
                LEFT JOIN person p ON p.id = v.person_id LEFT JOIN guest g ON g.id = v.guest_id
                WHERE t.episode_id = #{episodeId} ORDER BY name
                """)
        List<Heard> heard(long episodeId);

        @Select("""
                SELECT t.id, t.name FROM take t WHERE t.episode_id = #{episodeId} AND t.origin NOT IN ('SHELF', 'NOTE') AND NOT t.without_voice
                AND NOT EXISTS (SELECT 1 FROM take_voice v WHERE v.take_id = t.id) ORDER BY t.id
                """)
        List<TakeName> unnamed(long episodeId);

        @Select("SELECT id, name FROM take WHERE episode_id = #{episodeId} AND origin NOT IN ('SHELF', 'NOTE') AND state <> 'ERASED' ORDER BY id")
        List<TakeName> spoken(long episodeId);

        @Select("SELECT id, name FROM take WHERE episode_id = #{episodeId} AND without_voice ORDER BY id")
        List<TakeName> withoutVoice(long episodeId);

        @Select("SELECT id, name FROM guest WHERE crew_id = #{crewId} ORDER BY name")
        List<Guest> guests(long crewId);

        @Select("SELECT id FROM guest WHERE crew_id = #{crewId} AND name = #{name}")
        long guest(long crewId, String name);

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
     * @throws Refusal unless both are of the crew or its guests, are two, and hold everybody who was named before
     */
    public void onSides(Person viewer, Episode episode, long takeId, Speaker left, Speaker right) {
        boolean somebodyLeftOut = voices.speakersOf(takeId).stream().map(Speaker::of).flatMap(Optional::stream)
                .anyMatch(named -> !named.equals(left) && !named.equals(right));
        if (left.equals(right) || somebodyLeftOut || !speaks(episode, left) || !speaks(episode, right)) {
            throw Refusal.unfit("take.TWO_VOICES");
        }
        voices.forget(takeId);
        add(takeId, left, Side.LEFT);
        add(takeId, right, Side.RIGHT);
        events.publishEvent(new VoicesChanged.SpeakersSaid(viewer, episode.id()));
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

    /**
     * Says whose voices are in a take: its crew, once, or their teacher, who may say otherwise later. A crew that could change it could open the
     * gate to the air by itself.
     *
     * @param speakers of the crew or its guests; others are left out
     * @param nobody   that nobody speaks in it
     */
    public void name(Person viewer, long episodeId, long takeId, Set<Speaker> speakers, boolean nobody) {
        Episode episode = access.episode(viewer, episodeId);
        voices.lockTake(takeId, episodeId).orElseThrow(NotFound::new);
        if (!viewer.isTeacher() && unnamedOf(episodeId, Set.of(takeId)).isEmpty()) {
            throw Refusal.conflict("take.VOICES_SAID");
        }
        List<Speaker> known = speakers.stream().filter(speaker -> speaks(episode, speaker)).toList();
        if (known.isEmpty() != nobody) {
            throw Refusal.unfit("take.WHOSE_VOICE");
        }
        voices.forget(takeId);
        known.forEach(speaker -> add(takeId, speaker, null));
        voices.nobodySpeaks(takeId, nobody);
        events.publishEvent(new VoicesChanged.SpeakersSaid(viewer, episodeId));
    }

    /**
     * Who is said to speak in a take.
     *
     * @param speakers as forms say them; empty where nobody has said, or nobody speaks
     */
    public record Said(long takeId, String name, Set<String> speakers, boolean nobody) {
    }

    /** Who is said to speak in some takes of an episode that has been let through. */
    @Transactional(readOnly = true)
    public List<Said> said(long episodeId, Set<Long> takeIds) {
        Set<Long> silent = voices.withoutVoice(episodeId).stream().map(TakeName::id).collect(Collectors.toSet());
        return voices.spoken(episodeId).stream().filter(take -> takeIds.contains(take.id()))
                .map(take -> new Said(take.id(), take.name(), Set.copyOf(voices.speakersOf(take.id())), silent.contains(take.id()))).toList();
    }

    /** Every voice in takes of an episode that has been let through, each person once. */
    @Transactional(readOnly = true)
    public List<Heard> heardIn(long episodeId, Set<Long> takeIds) {
        Map<String, Heard> once = new LinkedHashMap<>();
        voices.heard(episodeId).stream().filter(voice -> takeIds.contains(voice.takeId()))
                .forEach(voice -> once.putIfAbsent(voice.personId() + voice.name(), voice));
        return List.copyOf(once.values());
    }

    /** The takes among some of an episode that has been let through of which nobody has said whose voices are in them. */
    @Transactional(readOnly = true)
    public List<TakeName> unnamedOf(long episodeId, Set<Long> takeIds) {
        return voices.unnamed(episodeId).stream().filter(take -> takeIds.contains(take.id())).toList();
    }

    /** The takes among some of an episode that has been let through of which somebody has said that nobody speaks in them. */
    @Transactional(readOnly = true)
    public List<TakeName> withoutVoice(long episodeId, Set<Long> takeIds) {
        return voices.withoutVoice(episodeId).stream().filter(take -> takeIds.contains(take.id())).toList();
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
        String checked = Fields.required(name, LONGEST_GUEST, "take.GUEST_NAME");
        voices.addGuest(episode.crewId(), checked, extent, viewer.id(), clock.instant());
        events.publishEvent(new VoicesChanged.ConsentSaid(viewer, new Speaker.OfGuest(voices.guest(episode.crewId(), checked))));
        return voices.guests(episode.crewId());
    }
}

package org.mellowclass.app.room;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.jsonPath;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrl;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import com.jayway.jsonpath.JsonPath;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.lineup.LineUps;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class RoomTest {

    private static final Signal SPOKEN = Signal.concat(Signal.noise(1, -60, 2, 3), Signal.sine(1, 400, -12, 3));

    @Autowired
    private Recording recording;
    @Autowired
    private Bench bench;
    @Autowired
    private PlacedTakes placed;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private Voices voices;
    @Autowired
    private JdbcClient jdbc;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private LineUps lineUps;
    @Autowired
    private Schools schools;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private Timeline timeline() {
        return bench.head(school.student(), school.episodeId()).timeline();
    }

    private static Recording.Start start(long leadSeconds, Long placeFrame, Long lineId) {
        return new Recording.Start("Noor", Frames.RATE, Frames.ofSeconds(leadSeconds), placeFrame, lineId, Set.of(), Set.of(), "{\"echoCancellation\":false}", null, null);
    }

    @Test
    void the_room_before_the_first_word_is_kept_with_the_take_but_not_heard_on_the_page() {
        long take = schools.recorded(school, start(2, null, null), SPOKEN);
        Clip clip = timeline().tracks().get(0).clips().get(0);
        assertThat(clip.sourceFrame()).isEqualTo(Frames.ofSeconds(2));
        assertThat(clip.frames()).isEqualTo(Frames.ofSeconds(3));
        assertThat(takes.ready(school.episodeId()).get(take).frames()).isEqualTo(Frames.ofSeconds(5));
        assertThat(sounds.facts(school.episodeId()).room(take)).as("it is what blanking uses").contains(new Span(0, Frames.ofSeconds(2)));
        assertThat(jdbc.sql("SELECT microphone FROM recording WHERE take_id = ?").param(take).query(String.class).single()).contains("echoCancellation");
    }

    @Test
    void a_take_lands_at_its_place_or_beside_what_is_there_and_says_so_before() throws Exception {
        schools.recorded(school, start(0, null, null), SPOKEN);
        mvc.perform(get("/episodes/" + school.episodeId() + "/landing?track=Noor&place=48000").with(As.person(school.student())))
                .andExpect(jsonPath("$.trackName").value("Noor 2")).andExpect(jsonPath("$.beside").value(true));
        mvc.perform(get("/episodes/" + school.episodeId() + "/landing?track=Noor").with(As.person(school.student())))
                .andExpect(jsonPath("$.trackName").value("Noor")).andExpect(jsonPath("$.startFrame").value(Frames.ofSeconds(5)));
        long second = schools.recorded(school, start(0, Frames.ofSeconds(1), null), SPOKEN);
        assertThat(timeline().tracks()).extracting(Track::name).containsExactly("Noor", "Noor 2");
        assertThat(timeline().tracks().get(1).clips().get(0).startFrame()).isEqualTo(Frames.ofSeconds(1));
        assertThat(takes.ready(school.episodeId()).get(second).trackName()).isEqualTo("Noor 2");
    }

    @Test
    void moments_flagged_while_speaking_are_flags_at_their_words() {
        Recording.Begun begun = recording.begin(school.student(), school.episodeId(), start(2, null, null));
        byte[] pcm = Pcm16.interleaved(SPOKEN.samples(), SPOKEN.samples()[0].length);
        CRC32 crc = new CRC32();
        crc.update(pcm);
        recording.chunk(begun.uploadKey(), 0, 0, crc.getValue(), pcm, false);
        recording.flag(begun.uploadKey(), Frames.ofSeconds(3));
        recording.flag(begun.uploadKey(), Frames.ofSeconds(3));
        recording.end(begun.uploadKey(), 1, pcm.length / 2, false);
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(begun.takeId()));
        assertThat(timeline().flags()).singleElement().satisfies(flag -> {
            assertThat(flag.frame()).as("behind the room").isEqualTo(Frames.ofSeconds(1));
            assertThat(flag.name()).isEqualTo("flag 1");
        });
    }

    @Test
    void a_retake_of_a_line_waits_until_it_is_chosen_and_then_takes_the_place_of_the_other() throws Exception {
        long line = schools.line(school, "Hello.");
        long first = schools.recorded(school, start(0, null, line), SPOKEN);
        long second = schools.recorded(school, start(2, null, line), SPOKEN);
        assertThat(Bench.takesIn(timeline())).containsExactly(first);
        assertThat(takes.ofLine(school.episodeId(), line)).extracting(Take::id).containsExactly(first, second);
        String room = "/episodes/" + school.episodeId() + "/record";
        mvc.perform(post("/episodes/" + school.episodeId() + "/takes/" + second + "/choose").with(As.person(school.student())).with(csrf()))
                .andExpect(redirectedUrl(room + "?later=" + -Frames.ofSeconds(2)));
        assertThat(mvc.perform(get(room + "?later=" + -Frames.ofSeconds(2)).with(As.person(school.student()))).andReturn().getResponse().getContentAsString())
                .contains("Chosen. It is 2.0 s shorter: what follows came nearer.");
        assertThat(Bench.takesIn(timeline())).containsExactly(second);
        assertThat(timeline().tracks().get(0).clips().get(0).startFrame()).isZero();
        bench.undo(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), "client-choose-2", false);
        assertThat(Bench.takesIn(timeline())).containsExactly(first);
    }

    @Test
    void a_take_names_its_voices_and_a_guest_is_asked_for_once() throws Exception {
        List<Voices.Guest> guests = voices.addGuest(school.student(), school.episodeId(), "Mr Pellow", Consent.PUBLIC);
        voices.addGuest(school.partner(), school.episodeId(), "Mr Pellow", Consent.SCHOOL);
        assertThat(voices.guests(school.student(), school.episodeId())).isEqualTo(guests);
        schools.recorded(school, new Recording.Start("Noor", Frames.RATE, 0, null, null, Set.of(school.partner().id(), school.neighbour().id()),
                Set.of(guests.get(0).id()), null, null, null), SPOKEN);
        String page = mvc.perform(get("/episodes/" + school.episodeId() + "/record").with(As.person(school.student()))).andReturn().getResponse().getContentAsString();
        assertThat(page).as("who signed in is not who speaks; another crew's voice is not taken").contains("Mr Pellow, Tess · level");
    }

    @Test
    void a_test_sentence_is_measured_and_one_thing_is_said_about_it() throws Exception {
        assertThat(Stream.of(-12.0, -45.0, -80.0).map(this::advice)).containsExactly("GOOD", "TOO_QUIET", "NOTHING_HEARD");
        mvc.perform(post("/episodes/" + school.episodeId() + "/microphone-check?rate=48000&channels=1").contentType(MediaType.APPLICATION_OCTET_STREAM).with(csrf()).with(As.person(school.student()))
                .content(new byte[48_000 * 2 * 6])).andExpect(jsonPath("$.levelDbfs").isEmpty()).andExpect(jsonPath("$.noiseDbfs").isEmpty());
    }

    private String advice(double dbfs) {
        Signal sentence = Signal.concat(Signal.noise(1, dbfs - 50, 2.5, 7), Signal.sine(1, 400, dbfs, 4));
        try {
            String json = mvc.perform(post("/episodes/" + school.episodeId() + "/microphone-check?rate=48000&channels=1").contentType(MediaType.APPLICATION_OCTET_STREAM).with(csrf())
                    .with(As.person(school.student())).content(Pcm16.interleaved(sentence.samples(), sentence.samples()[0].length)))
                    .andReturn().getResponse().getContentAsString();
            return json.replaceAll(".*\"advice\":\"(\\w+)\".*", "$1");
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void two_laptops_begin_on_one_word_and_land_at_one_place_in_step() throws Exception {
        String path = "/episodes/" + school.episodeId() + "/together";
        mvc.perform(post(path + "/start").with(As.person(school.teacher())).with(csrf())).andExpect(status().isConflict());
        for (Person student : List.of(school.student(), school.partner())) {
            mvc.perform(post(path + "/wait").param("laptop", UUID.randomUUID().toString()).with(As.person(student)).with(csrf())).andExpect(status().isOk());
        }
        String word = mvc.perform(post(path + "/start").with(As.person(school.teacher())).with(csrf()))
                .andExpect(jsonPath("$.waiting[0]").value("Noor")).andExpect(jsonPath("$.waiting[1]").value("Tess")).andReturn().getResponse().getContentAsString();
        String key = JsonPath.read(word, "$.word.key");
        assertThat(JsonPath.<String>read(mvc.perform(post(path + "/start").with(As.person(school.student())).with(csrf())).andReturn().getResponse()
                .getContentAsString(), "$.word.key")).as("a second press gives the same word").isEqualTo(key);

        Signal conversation = Signal.noise(1, -12, 9, 4);
        float[] all = conversation.samples()[0];
        Recording.Start start = new Recording.Start("Noor", Frames.RATE, 0, 0L, null, Set.of(), Set.of(), null, key, null);
        Recording.Begun late = recording.begin(school.student(), school.episodeId(), new Recording.Start("Tess", Frames.RATE, 0, 0L, null, Set.of(), Set.of(), null, key, null));
        long first = schools.recorded(school, start, Signal.of(Frames.RATE, Arrays.copyOf(all, 8 * Frames.RATE)));
        assertThat(lineUps.ofEpisode(school.student(), school.episodeId())).as("the other one is still on its way").isEmpty();
        schools.finish(school, late, Signal.of(Frames.RATE, Arrays.copyOfRange(all, 12_345, all.length)));
        Schools.await(() -> lineUps.ofEpisode(school.student(), school.episodeId()).stream().anyMatch(it -> it.laidAt() != null));
        Map<Long, Long> starts = bench.head(school.student(), school.episodeId()).timeline().tracks().stream().flatMap(track -> track.clips().stream())
                .collect(Collectors.toMap(clip -> clip.source().takeId(), Clip::startFrame));
        // the first to begin stays, and it heard 12,345 frames less of what went before
        assertThat(starts.get(first) - starts.get(late.takeId())).isBetween(-12_345L - 48, -12_345L + 48);
        assertThat(Math.min(starts.get(first), starts.get(late.takeId()))).isZero();
    }
}

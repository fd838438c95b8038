package org.mellowclass.app.feed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.hamcrest.Matchers.containsString;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Set;

import com.rometools.modules.itunes.EntryInformation;
import com.rometools.rome.feed.synd.SyndEntry;
import com.rometools.rome.feed.synd.SyndFeed;
import com.rometools.rome.io.SyndFeedInput;
import com.rometools.rome.io.XmlReader;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.media.SoundDecoder;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.springframework.transaction.support.TransactionTemplate;

/** The public side, over real HTTP, as a podcast program sees it. */
@AppTest
class FeedTest {

    @TempDir
    Path folder;
    @LocalServerPort
    private int port;
    @Autowired
    private AirDesk airDesk;
    @Autowired
    private HandIns handIns;
    @Autowired
    private Access access;
    @Autowired
    private TransactionTemplate transaction;
    @Autowired
    private Schools schools;
    @Autowired
    private SoundStore store;
    @Autowired
    private SoundDecoder decoder;
    @Autowired
    private JdbcClient jdbc;
    @Autowired
    private Voices voices;
    @Autowired
    private MockMvc mvc;
    private final HttpClient http = HttpClient.newHttpClient();
    private Schools.School school;
    private HandIn handIn;
    private String feed;

    @BeforeEach
    void handInAnEpisode() throws IOException {
        school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        handIn = schools.readyHandIn(school);
        feed = "/f/" + airDesk.feedKey(school.teacher(), school.classId());
    }

    @Test
    void the_feed_is_rss_whose_enclosure_is_served_to_the_byte_and_measures_right() throws Exception {
        Publication published = publish();
        HttpResponse<byte[]> xml = get(feed + "/feed.xml");
        assertThat(xml.headers().firstValue("Content-Type").orElseThrow()).startsWith("application/rss+xml");
        SyndFeed parsed = new SyndFeedInput().build(new XmlReader(new ByteArrayInputStream(xml.body())));
        assertThat(parsed.getFeedType()).isEqualTo("rss_2.0");
        assertThat(parsed.getTitle()).isEqualTo("Test Tales");
        SyndEntry entry = parsed.getEntries().get(0);
        assertThat(entry.getTitle()).isEqualTo("Eels & otters");
        assertThat(entry.getUri()).isEqualTo(published.publicKey());
        EntryInformation podcast = (EntryInformation) entry.getModule("http://www.itunes.com/dtds/podcast-1.0.dtd");
        assertThat(podcast.getDuration().getMilliseconds() / 1000).isEqualTo(5);
        String address = URI.create(entry.getEnclosures().get(0).getUrl()).getPath();
        assertThat(address).endsWith("/eels-otters.mp3");
        HttpResponse<byte[]> mp3 = get(address);
        assertThat((long) mp3.body().length).isEqualTo(entry.getEnclosures().get(0).getLength());
        assertThat(mp3.headers().firstValue("Content-Type")).contains("audio/mpeg");

        Path file = Files.write(folder.resolve("served.mp3"), mp3.body());
        LoudnessMeter loudness = new LoudnessMeter(2);
        TruePeakMeter peak = new TruePeakMeter(2);
        try (SampleSource sound = decoder.open(file, decoder.probe(file))) {
            SampleSink.drain(sound, loudness, peak);
        }
        assertThat(loudness.integrated().orElseThrow()).isCloseTo(-16, within(0.2));
        assertThat(peak.truePeakDbtp().orElseThrow()).isLessThanOrEqualTo(-1);
        assertThat(published.loudnessLufs()).isCloseTo(loudness.integrated().getAsDouble(), within(0.001));
    }

    @Test
    void the_feed_says_what_directories_ask_for_and_who_asks_again_is_told_that_nothing_is_new() throws Exception {
        publish();
        HttpResponse<byte[]> xml = get(feed + "/feed.xml");
        String text = new String(xml.body(), StandardCharsets.UTF_8);
        assertThat(text).contains("<itunes:explicit>false</itunes:explicit>", "<itunes:category text=\"Education\"", "<itunes:episode>1</itunes:episode>", "<podcast:locked>yes</podcast:locked>",
                "rel=\"self\"", "/feed.xml\"").containsPattern("<podcast:guid>[0-9a-f]{8}-[0-9a-f]{4}-5[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}</podcast:guid>")
                .doesNotContainPattern("<([\\w:]+)>\\s*</\\1>");
        HttpResponse<byte[]> again = http.send(HttpRequest.newBuilder(uri(feed + "/feed.xml")).header("If-None-Match", xml.headers().firstValue("ETag").orElseThrow()).build(),
                HttpResponse.BodyHandlers.ofByteArray());
        assertThat(again.statusCode()).isEqualTo(304);
        assertThat(again.body()).isEmpty();
    }

    /** As Python's uuid5 has it. */
    @Test
    void a_feed_has_the_same_name_wherever_it_is() {
        assertThat(RssWriter.guid("https://saltmarsh.example/f/tides/feed.xml")).isEqualTo("d7f849a8-2d71-54d4-9b06-6a4d0a91dc40");
        assertThat(RssWriter.guid("http://saltmarsh.example/f/tides/feed.xml/")).isEqualTo("d7f849a8-2d71-54d4-9b06-6a4d0a91dc40");
    }

    @Test
    void a_correction_takes_the_place_of_what_is_on_air_under_the_same_page_with_another_file() throws Exception {
        Publication first = publish();
        String old = sound(first);
        byte[] heard = get(old).body();
        assertThat(airDesk.correction(access.episode(school.teacher(), school.episodeId()))).isEmpty();
        schools.readyTake(school, Signal.sine(1, 700, -20, 2), "Tess");
        HandIn newer = schools.readyHandIn(school);
        airDesk.correct(school.teacher(), school.episodeId());
        assertThat(airDesk.onAir(school.episodeId()).orElseThrow().nextHandInId()).as("not cleared yet").isNull();
        schools.clear(school.teacher(), newer.id());
        airDesk.correct(school.teacher(), school.episodeId());
        airDesk.correct(school.teacher(), school.episodeId());
        Schools.await(() -> airDesk.onAir(school.episodeId()).orElseThrow().version() == 2);
        Publication second = airDesk.onAir(school.episodeId()).orElseThrow();
        assertThat(second.publicKey()).isEqualTo(first.publicKey());
        assertThat(second.onAirAt()).isEqualTo(first.onAirAt());
        assertThat(second.handInId()).isEqualTo(newer.id());
        assertThat(get(old).statusCode()).as("the old file").isEqualTo(404);
        assertThat(get(sound(second)).body()).isNotEqualTo(heard);
        assertThatThrownBy(() -> store.hold(first.soundKey())).isInstanceOf(NoSuchFileException.class);
        SyndFeed parsed = new SyndFeedInput().build(new XmlReader(new ByteArrayInputStream(get(feed + "/feed.xml").body())));
        assertThat(parsed.getEntries()).singleElement().satisfies(entry -> {
            assertThat(entry.getUri()).isEqualTo(first.publicKey());
            assertThat(entry.getEnclosures().get(0).getUrl()).endsWith("/eels-otters-2.mp3");
        });
        jdbc.sql("UPDATE publication SET next_hand_in_id = hand_in_id WHERE id = ?").param(second.id()).update();
        transaction.executeWithoutResult(status -> airDesk.takeOff(school.episodeId(), publication -> false));
        assertThat(airDesk.onAir(school.episodeId()).orElseThrow().nextHandInId()).as("an erasing drops a correction on its way").isNull();
        airDesk.takeOff(school.teacher(), school.episodeId());
        assertThat(get(sound(second)).statusCode()).isEqualTo(410);
    }

    @Test
    void a_correction_goes_through_the_same_gate() throws Exception {
        publish();
        long take = schools.readyTake(school, Signal.sine(1, 700, -20, 2), "Ravi");
        HandIn newer = schools.readyHandIn(school);
        schools.clear(school.teacher(), newer.id());
        voices.name(school.teacher(), school.episodeId(), take, Set.of(new Voices.Speaker.Student(school.partner().id())), false);
        schools.consent(school.teacher(), school.partner(), Consent.SCHOOL);
        assertThatThrownBy(() -> airDesk.correct(school.teacher(), school.episodeId())).isInstanceOf(Refusal.class);
        assertThat(airDesk.onAir(school.episodeId()).orElseThrow().nextHandInId()).isNull();
    }

    @Test
    void the_file_is_served_in_ranges() throws Exception {
        String address = sound(publish());
        byte[] whole = get(address).body();
        HttpResponse<byte[]> part = http.send(HttpRequest.newBuilder(uri(address)).header("Range", "bytes=1000-1999").build(),
                HttpResponse.BodyHandlers.ofByteArray());
        assertThat(part.statusCode()).isEqualTo(206);
        assertThat(part.headers().firstValue("Content-Range")).contains("bytes 1000-1999/" + whole.length);
        assertThat(part.body()).isEqualTo(Arrays.copyOfRange(whole, 1000, 2000));
    }

    @Test
    void nothing_can_be_reached_before_it_is_on_air_and_all_is_gone_after() throws Exception {
        assertThat(get(feed + "/00112233445566778899aabbccddeeff").statusCode()).isEqualTo(404);
        assertThat(new String(get(feed + "/feed.xml").body())).doesNotContain("<item>");
        Publication published = publish();
        String page = feed + "/" + published.publicKey();
        assertThat(get(page).statusCode()).isEqualTo(200);
        assertThat(get(page + "/another-name.mp3").statusCode()).isEqualTo(404);
        assertThat(get("/f/00112233445566778899aabbccddeeff/" + published.publicKey()).statusCode()).isEqualTo(404);
        Path file = store.hold(published.soundKey()).file();

        airDesk.takeOff(school.teacher(), school.episodeId());

        assertThat(get(page).statusCode()).isEqualTo(410);
        assertThat(get(sound(published)).statusCode()).isEqualTo(410);
        assertThat(new String(get(feed + "/feed.xml").body())).doesNotContain("<item>");
        assertThat(file).doesNotExist();
    }

    @Test
    void listeners_get_no_cookie_and_no_session() throws Exception {
        Publication published = publish();
        for (String path : new String[] {feed, feed + "/feed.xml", feed + "/" + published.publicKey(), sound(published)}) {
            assertThat(get(path).headers().allValues("Set-Cookie")).as(path).isEmpty();
        }
    }

    @Test
    void an_episode_that_comes_back_has_a_new_address_and_the_old_one_stays_gone() throws Exception {
        Publication first = publish();
        airDesk.takeOff(school.teacher(), school.episodeId());
        airDesk.takeOff(school.teacher(), school.episodeId());
        Publication second = publish();
        assertThat(second.publicKey()).isNotEqualTo(first.publicKey());
        assertThat(get(sound(first)).statusCode()).isEqualTo(410);
        assertThat(get(sound(second)).statusCode()).isEqualTo(200);
    }

    @Test
    void one_that_is_taken_off_while_it_is_prepared_never_goes_out() throws Exception {
        schools.clear(school.teacher(), handIn.id());
        airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.");
        airDesk.takeOff(school.teacher(), school.episodeId());
        long publication = jdbc.sql("SELECT id FROM publication WHERE episode_id = ?").param(school.episodeId())
                .query(Long.class).single();
        Schools.await(() -> jdbc.sql("SELECT count(*) FROM scheduled_tasks WHERE task_instance = ?")
                .param("on-air-" + publication).query(Integer.class).single() == 0);
        assertThat(airDesk.onAir(school.episodeId())).isEmpty();
        assertThat(new String(get(feed + "/feed.xml").body())).doesNotContain("<item>");
    }

    @Test
    void publishing_twice_makes_one() throws Exception {
        Publication first = publish();
        airDesk.publish(school.teacher(), school.episodeId(), "Again", "Again.");
        assertThat(airDesk.onAir(school.episodeId())).contains(first);
    }

    @Test
    void the_gate_says_what_is_missing() {
        assertThatThrownBy(() -> airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story."))
                .hasMessage("air.CLEARANCE");
        schools.clear(school.teacher(), handIn.id());
        assertThatThrownBy(() -> airDesk.publish(school.teacher(), school.episodeId(), " ", "A story."))
                .hasMessage("air.TITLE");
        assertThatThrownBy(() -> airDesk.publish(school.teacher(), school.episodeId(), "Eels", ""))
                .hasMessage("air.DESCRIPTION");
        for (Consent less : List.of(Consent.NONE, Consent.SCHOOL)) {
            schools.consent(school.teacher(), school.student(), less);
            assertThatThrownBy(() -> airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story."))
                    .isInstanceOfSatisfying(Refusal.class, refused -> assertThat(refused.arguments()).containsExactly("Noor")).hasMessage("air.CONSENT");
        }
        assertThat(airDesk.onAir(school.episodeId())).isEmpty();
    }

    @Test
    void a_take_of_which_nobody_has_said_who_speaks_is_not_heard_in_public() throws Exception {
        schools.clear(school.teacher(), handIn.id());
        long take = handIns.takesHeard(handIn).iterator().next();
        jdbc.sql("DELETE FROM take_voice WHERE take_id = ?").param(take).update();
        assertThatThrownBy(() -> airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.")).hasMessage("air.VOICES");
        assertThatThrownBy(() -> voices.name(school.stranger(), school.episodeId(), take, Set.of(), true)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> voices.name(school.teacher(), school.episodeId(), take, Set.of(), false)).hasMessage("take.WHOSE_VOICE");
        assertThatThrownBy(() -> voices.name(school.teacher(), school.episodeId(), take, Set.of(new Speaker.Student(school.stranger().id())), false)).as("nobody of this crew")
                .hasMessage("take.WHOSE_VOICE");
        String page = mvc.perform(MockMvcRequestBuilders.get("/episodes/" + school.episodeId() + "/air").with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
        assertThat(page).contains("Who speaks in sound?", "What stands below comes first.");
        voices.name(school.student(), school.episodeId(), take, Set.of(new Speaker.Student(school.student().id())), false);
        assertThatThrownBy(() -> voices.name(school.student(), school.episodeId(), take, Set.of(), true)).as("a crew does not open the gate by saying otherwise")
                .hasMessage("take.VOICES_SAID");
        voices.name(school.teacher(), school.episodeId(), take, Set.of(), true);
        String said = mvc.perform(MockMvcRequestBuilders.get("/episodes/" + school.episodeId() + "/air").with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
        assertThat(said).contains("Nobody speaks, as was said, in: ");
        publish();
    }

    @Test
    void characters_that_xml_forbids_never_reach_the_feed() throws Exception {
        schools.clear(school.teacher(), handIn.id());
        airDesk.publish(school.teacher(), school.episodeId(), "Eels\u0000 and\u000b otters\uFFFE", "A \u001bstory.");
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        assertThat(airDesk.onAir(school.episodeId()).orElseThrow().title()).isEqualTo("Eels and otters");
        jdbc.sql("UPDATE publication SET title = ? WHERE episode_id = ?").params("Old\u0001 title", school.episodeId()).update();
        mvc.perform(MockMvcRequestBuilders.get("/f/" + airDesk.feedKey(school.teacher(), school.classId()) + "/feed.xml")).andExpect(status().isOk()).andExpect(content().string(containsString("<title>Old title</title>")));
    }

    private Publication publish() {
        schools.clear(school.teacher(), handIn.id());
        airDesk.publish(school.teacher(), school.episodeId(), "Eels & otters", "A story about <both>.");
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        return airDesk.onAir(school.episodeId()).orElseThrow();
    }

    private String sound(Publication publication) {
        return feed + "/" + publication.publicKey() + "/" + publication.fileName() + ".mp3";
    }

    private HttpResponse<byte[]> get(String path) throws Exception {
        return http.send(HttpRequest.newBuilder(uri(path)).build(), HttpResponse.BodyHandlers.ofByteArray());
    }

    private URI uri(String path) {
        return URI.create("http://127.0.0.1:" + port + path);
    }
}

package org.mellowclass.app.feed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringReader;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;

import javax.imageio.ImageIO;
import javax.xml.XMLConstants;
import javax.xml.namespace.NamespaceContext;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.xpath.XPath;
import javax.xml.xpath.XPathFactory;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.shelf.LayingIn;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.w3c.dom.Document;
import org.xml.sax.InputSource;

/** What listeners, and the directories that list feeds for them, get to see. */
@AppTest
class ListenersTest {

    @Autowired
    private HandIns handIns;
    @Autowired
    private AirDesk airDesk;
    @Autowired
    private LayingIn layingIn;
    @Autowired
    private SchoolOffice office;
    @Autowired
    private SoundStore store;
    @Autowired
    private Voices voices;
    @Autowired
    private JdbcClient database;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private Schools schools;
    private Schools.School school;
    private String feed;
    private long bell;
    private HandIn handIn;

    @BeforeEach
    void anEpisodeWithASoundFromTheShelf() throws IOException {
        school = schools.build();
        long take = schools.readyTake(school, Schools.speech(), "Tess");
        voices.name(school.teacher(), school.episodeId(), take, Set.of(new Voices.Speaker.Student(school.student().id())), false);
        schools.consent(school.teacher(), school.student(), Consent.PUBLIC);
        bell = schools.shelfSound(school, "Buoy bell", Signal.sine(2, 600, -20, 3));
        layingIn.layIn(school.student(), school.episodeId(), 2, "client-lay-1", bell, 0, "Music", 0);
        handIn = schools.readyHandIn(school);
        schools.clear(school.teacher(), handIn.id());
        feed = "/f/" + airDesk.feedKey(school.teacher(), school.classId());
    }

    private Publication publish() {
        airDesk.publish(school.teacher(), school.episodeId(), "Eels & otters", "A story.");
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        return airDesk.onAir(school.episodeId()).orElseThrow();
    }

    private MockHttpServletResponse seen(String address) throws Exception {
        return mvc.perform(get(address)).andReturn().getResponse();
    }

    @Test
    void every_shelf_sound_that_is_heard_is_credited_on_the_page_in_the_feed_and_in_the_file() throws Exception {
        Publication published = publish();
        String credit = "“Buoy bell” by Ms Reed, CC0 1.0";
        assertThat(seen(feed + "/" + published.publicKey()).getContentAsString()).contains(credit);
        assertThat(seen(feed + "/feed.xml").getContentAsString()).contains("Music and effects:\n" + credit);
        Process probe = new ProcessBuilder("ffprobe", "-v", "error", "-show_entries", "format_tags=comment", "-of", "default=noprint_wrappers=1:nokey=1",
                store.hold(published.soundKey()).file().toString()).start();
        assertThat(new String(probe.getInputStream().readAllBytes()).strip()).isEqualTo(credit);
    }

    @Test
    void one_without_a_credit_stops_publishing_and_one_that_is_not_heard_needs_none() {
        database.sql("UPDATE shelf_sound SET credit = ' ' WHERE id = ?").param(bell).update();
        assertThatThrownBy(() -> airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.")).hasMessage("air.CREDITS");
        database.sql("UPDATE take SET shelf_sound_id = NULL WHERE shelf_sound_id = ?").param(bell).update();
        assertThat(airDesk.gate(handIns.find(school.teacher(), handIn.id())).open()).isTrue();
    }

    @Test
    void the_page_names_who_is_heard_and_leads_to_the_episodes_beside_it() throws Exception {
        Publication first = publish();
        database.sql("UPDATE publication SET on_air_at = on_air_at - INTERVAL 1 DAY").update();
        database.sql("""
                INSERT INTO publication (episode_id, hand_in_id, public_key, title, description, slug, state, sound_key, bytes, frames, loudness_lufs, true_peak_dbtp, consent_confirmed_by, created_at, on_air_at)
                SELECT (SELECT min(e.id) FROM episode e JOIN crew ON crew.id = e.crew_id WHERE crew.class_id = ? AND e.id <> episode_id), hand_in_id, repeat('b', 32), 'Later tide', 'x', 'later', 'ON_AIR', sound_key, bytes, frames, loudness_lufs, true_peak_dbtp, consent_confirmed_by, created_at, now(6) FROM publication WHERE id = ?
                """).params(school.classId(), first.id()).update();
        String page = seen(feed + "/" + first.publicKey()).getContentAsString();
        assertThat(page).contains("With Noor", "Next: Later tide").doesNotContain("Earlier:");
        assertThat(seen(feed + "/" + "b".repeat(32)).getContentAsString()).contains("Earlier: Eels &amp; otters").doesNotContain("Next:");
    }

    @Test
    void a_shared_link_shows_title_and_cover_and_no_search_engine_lists_it_unless_the_school_says_so() throws Exception {
        Publication published = publish();
        MockHttpServletResponse page = seen(feed + "/" + published.publicKey());
        assertThat(page.getContentAsString()).contains("property=\"og:title\" content=\"Eels &amp; otters\"", "property=\"og:image\"", feed + "/cover.png", "name=\"robots\" content=\"noindex\"");
        assertThat(page.getHeader("X-Robots-Tag")).isEqualTo("noindex");
        assertThat(page.getCookies()).isEmpty();
        office.setListeners(school.teacher().schoolId(), "", true);
        assertThat(seen(feed).getHeader("X-Robots-Tag")).isNull();
        assertThat(seen(feed).getContentAsString()).doesNotContain("noindex");
    }

    @Test
    void the_cover_is_a_square_that_directories_take_and_the_same_each_time() throws Exception {
        byte[] png = seen(feed + "/cover.png").getContentAsByteArray();
        BufferedImage cover = ImageIO.read(new ByteArrayInputStream(png));
        assertThat(cover.getWidth()).isBetween(1400, 3000).isEqualTo(cover.getHeight());
        assertThat(cover.getColorModel().hasAlpha()).isFalse();
        assertThat(png.length).isLessThan(512 * 1024);
        assertThat(new FeedCover().png("Test Tales", "x", "one")).isEqualTo(new FeedCover().png("Test Tales", "x", "one")).isNotEqualTo(new FeedCover().png("Test Tales", "x", "two"));
        assertThat(new FeedCover().png("A very long name of a project that nobody could ever read on a phone. 💧".repeat(4), "潮", "one")).isNotEmpty();
    }

    /** What the public directories ask of a feed and its episodes (their pages for publishers; the RSS 2.0 and podcast name spaces). */
    @Test
    void the_feed_has_everything_that_directories_ask_for() throws Exception {
        Publication published = publish();
        office.setListeners(school.teacher().schoolId(), "audio@saltmarsh.example", false);
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
        Document document = factory.newDocumentBuilder().parse(new InputSource(new StringReader(seen(feed + "/feed.xml").getContentAsString())));
        XPath path = XPathFactory.newInstance().newXPath();
        path.setNamespaceContext(new Spaces());
        Map<String, String> asked = new LinkedHashMap<>();
        asked.put("/rss/@version", "2\\.0");
        asked.put("/rss/channel/title", "Test Tales");
        asked.put("/rss/channel/link", "https?://.+" + feed);
        asked.put("/rss/channel/description", ".+");
        asked.put("/rss/channel/language", "en-gb");
        asked.put("/rss/channel/itunes:author", ".+");
        asked.put("/rss/channel/itunes:explicit", "false");
        asked.put("/rss/channel/itunes:type", "episodic");
        asked.put("/rss/channel/itunes:image/@href", "https?://.+/cover\\.png");
        asked.put("/rss/channel/itunes:category/@text", "Education");
        asked.put("/rss/channel/itunes:owner/itunes:name", ".+");
        asked.put("/rss/channel/itunes:owner/itunes:email", "audio@saltmarsh\\.example");
        asked.put("/rss/channel/atom:link[@rel='self']/@href", "https?://.+/feed\\.xml");
        asked.put("/rss/channel/podcast:guid", "[0-9a-f-]{36}");
        asked.put("/rss/channel/podcast:locked", "yes");
        asked.put("/rss/channel/item/title", "Eels & otters");
        asked.put("/rss/channel/item/link", "https?://.+/" + published.publicKey());
        asked.put("/rss/channel/item/guid[@isPermaLink='false']", published.publicKey());
        asked.put("/rss/channel/item/pubDate", "\\w{3}, \\d{2} \\w{3} \\d{4} .+");
        asked.put("/rss/channel/item/enclosure/@url", "https?://.+\\.mp3");
        asked.put("/rss/channel/item/enclosure/@type", "audio/mpeg");
        asked.put("/rss/channel/item/enclosure/@length", Long.toString(published.bytes()));
        asked.put("/rss/channel/item/itunes:duration", "[\\d:]+");
        asked.put("/rss/channel/item/itunes:explicit", "false");
        asked.put("/rss/channel/item/itunes:episode", "1");
        asked.put("/rss/channel/item/itunes:author", "Noor");
        for (Map.Entry<String, String> each : asked.entrySet()) {
            assertThat(path.evaluate(each.getKey(), document)).as(each.getKey()).matches(each.getValue());
        }
        assertThat(path.evaluate("count(//*[not(node()) and not(@*)])", document)).as("elements that say nothing").isEqualTo("0");
    }

    private static final class Spaces implements NamespaceContext {

        private static final Map<String, String> SPACES = Map.of("itunes", "http://www.itunes.com/dtds/podcast-1.0.dtd", "atom", "http://www.w3.org/2005/Atom",
                "podcast", "https://podcastindex.org/namespace/1.0");

        @Override
        public String getNamespaceURI(String prefix) {
            return SPACES.getOrDefault(prefix, XMLConstants.NULL_NS_URI);
        }

        @Override
        public String getPrefix(String uri) {
            throw new UnsupportedOperationException();
        }

        @Override
        public Iterator<String> getPrefixes(String uri) {
            throw new UnsupportedOperationException();
        }
    }
}

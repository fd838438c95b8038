package org.mellowclass.app.feed;

import com.rometools.modules.itunes.EntryInformation;
import com.rometools.modules.itunes.EntryInformationImpl;
import com.rometools.modules.itunes.FeedInformation;
import com.rometools.modules.itunes.FeedInformationImpl;
import com.rometools.modules.itunes.types.Category;
import com.rometools.modules.itunes.types.Duration;
import com.rometools.rome.feed.rss.Channel;
import com.rometools.rome.feed.rss.Description;
import com.rometools.rome.feed.rss.Enclosure;
import com.rometools.rome.feed.rss.Guid;
import com.rometools.rome.feed.rss.Item;
import com.rometools.rome.io.FeedException;
import com.rometools.rome.io.WireFeedOutput;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Comparator;
import java.util.Date;
import java.util.List;
import java.util.UUID;
import org.jdom2.Document;
import org.jdom2.Element;
import org.jdom2.Namespace;
import org.jdom2.output.Format;
import org.jdom2.output.LineSeparator;
import org.jdom2.output.XMLOutputter;
import org.mellowclass.app.feed.FeedMapper.Feed;
import org.mellowclass.app.feed.PublicFeed.OnAir;
import org.mellowclass.app.web.Fields;
import org.mellowclass.core.sound.Frames;

/** Writes RSS 2.0 with the usual podcast tags. */
final class RssWriter {

    private static final Namespace ATOM = Namespace.getNamespace("atom", "http://www.w3.org/2005/Atom");
    private static final Namespace PODCAST = Namespace.getNamespace("podcast", "https://podcastindex.org/namespace/1.0");
    /** The name space of feeds, as the podcast namespace has it. */
    private static final UUID FEEDS = UUID.fromString("ead4c236-bf58-58c6-a2c6-a6b28d128cb6");

    private RssWriter() {
    }

    /** Where things are reached from outside. */
    interface Addresses {
        String feedPage();

        String feed();

        String cover();

        String episodePage(Publication publication);

        String sound(Publication publication);
    }

    static String write(Feed feed, List<OnAir> onAir, Addresses addresses) throws FeedException {
        Channel channel = new Channel("rss_2.0");
        channel.setTitle(Fields.plain(feed.title()));
        channel.setLink(addresses.feedPage());
        channel.setDescription(Fields.plain(feed.description()));
        channel.setLanguage("en-gb");
        FeedInformation podcast = new FeedInformationImpl();
        podcast.setAuthor(Fields.plain(feed.schoolName()));
        podcast.setExplicit(false);
        podcast.setType("episodic");
        podcast.setImageUri(addresses.cover());
        if (feed.contact() != null) {
            podcast.setOwnerName(Fields.plain(feed.schoolName()));
            podcast.setOwnerEmailAddress(feed.contact());
        }
        podcast.setCategories(List.of(new Category("Education")));
        channel.setModules(List.of(podcast));
        channel.setForeignMarkup(List.of(new Element("link", ATOM).setAttribute("rel", "self").setAttribute("type", "application/rss+xml").setAttribute("href", addresses.feed()),
                new Element("guid", PODCAST).setText(guid(addresses.feed())), new Element("locked", PODCAST).setText("yes")));
        List<Long> inOrder = onAir.stream().map(OnAir::publication).sorted(Comparator.comparing(Publication::onAirAt).thenComparing(Publication::id)).map(Publication::id).toList();
        channel.setItems(onAir.stream().map(episode -> item(episode, inOrder.indexOf(episode.publication().id()) + 1, addresses)).toList());
        Document document = new WireFeedOutput().outputJDom(channel);
        document.getRootElement().addNamespaceDeclaration(PODCAST);
        tidy(document.getRootElement());
        return new XMLOutputter(Format.getPrettyFormat().setLineSeparator(LineSeparator.UNIX)).outputString(document);
    }

    /** As directories read it today: {@code explicit} is true or false, and what says nothing is not there. */
    private static void tidy(Element element) {
        for (Element child : List.copyOf(element.getChildren())) {
            tidy(child);
            if (child.getName().equals("explicit")) {
                child.setText(Boolean.toString(child.getText().equals("yes")));
            }
            if (child.getChildren().isEmpty() && child.getAttributes().isEmpty() && child.getTextTrim().isEmpty()) {
                child.detach();
            }
        }
    }

    /**
     * The podcast namespace's name of a feed, the same wherever it is hosted: a UUID of version 5 (RFC 9562, 5.5) of its address without the
     * scheme.
     */
    static String guid(String address) {
        byte[] name = address.replaceFirst("^\\w+://", "").replaceFirst("/$", "").getBytes(StandardCharsets.UTF_8);
        try {
            MessageDigest sha1 = MessageDigest.getInstance("SHA-1");
            sha1.update(ByteBuffer.allocate(16).putLong(FEEDS.getMostSignificantBits()).putLong(FEEDS.getLeastSignificantBits()).array());
            ByteBuffer hash = ByteBuffer.wrap(sha1.digest(name));
            long high = hash.getLong() & ~0xF000L | 0x5000L;
            long low = hash.getLong() & 0x3FFFFFFFFFFFFFFFL | 0x8000000000000000L;
            return new UUID(high, low).toString();
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Item item(OnAir episode, int number, Addresses addresses) {
        Publication publication = episode.publication();
        Item item = new Item();
        item.setTitle(Fields.plain(publication.title()));
        item.setLink(addresses.episodePage(publication));
        Description description = new Description();
        description.setType("text/plain");
        String credits = String.join("\n", episode.credits());
        description.setValue(Fields.plain(publication.description() + (credits.isEmpty() ? "" : "\n\nMusic and effects:\n" + credits)));
        item.setDescription(description);
        item.setPubDate(Date.from(publication.onAirAt()));
        Guid guid = new Guid();
        guid.setValue(publication.publicKey());
        guid.setPermaLink(false);
        item.setGuid(guid);
        Enclosure enclosure = new Enclosure();
        enclosure.setUrl(addresses.sound(publication));
        enclosure.setLength(publication.bytes());
        enclosure.setType("audio/mpeg");
        item.setEnclosures(List.of(enclosure));
        EntryInformation podcast = new EntryInformationImpl();
        podcast.setDuration(new Duration(Frames.toMillis(publication.frames())));
        podcast.setExplicit(false);
        podcast.setEpisode(number);
        podcast.setAuthor(Fields.plain(String.join(", ", episode.names())));
        item.setModules(List.of(podcast));
        return item;
    }
}

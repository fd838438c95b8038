package org.mellowclass.app.feed;

import java.util.Date;
import java.util.List;

import com.rometools.modules.itunes.EntryInformation;
import com.rometools.modules.itunes.EntryInformationImpl;
import com.rometools.modules.itunes.FeedInformation;
import com.rometools.modules.itunes.FeedInformationImpl;
import com.rometools.modules.itunes.types.Duration;
import com.rometools.rome.feed.rss.Channel;
import com.rometools.rome.feed.rss.Description;
import com.rometools.rome.feed.rss.Enclosure;
import com.rometools.rome.feed.rss.Guid;
import com.rometools.rome.feed.rss.Item;
import com.rometools.rome.io.FeedException;
import com.rometools.rome.io.WireFeedOutput;
import org.mellowclass.app.feed.FeedMapper.Feed;
import org.mellowclass.app.web.Fields;
import org.mellowclass.core.sound.Frames;

/** Writes RSS 2.0 with the usual podcast tags. */
final class RssWriter {

    private RssWriter() {
    }

    /** Where things are reached from outside. */
    interface Addresses {
        String feedPage();

        String episodePage(Publication publication);

        String sound(Publication publication);
    }

    static String write(Feed feed, List<Publication> onAir, Addresses addresses) throws FeedException {
        Channel channel = new Channel("rss_2.0");
        channel.setTitle(Fields.plain(feed.title()));
        channel.setLink(addresses.feedPage());
        channel.setDescription(Fields.plain(feed.description()));
        channel.setLanguage("en-gb");
        FeedInformation podcast = new FeedInformationImpl();
        podcast.setAuthor(Fields.plain(feed.schoolName()));
        podcast.setExplicit(false);
        podcast.setType("episodic");
        channel.setModules(List.of(podcast));
        channel.setItems(onAir.stream().map(publication -> item(publication, addresses)).toList());
        return new WireFeedOutput().outputString(channel);
    }

    private static Item item(Publication publication, Addresses addresses) {
        Item item = new Item();
        item.setTitle(Fields.plain(publication.title()));
        item.setLink(addresses.episodePage(publication));
        Description description = new Description();
        description.setType("text/plain");
        description.setValue(Fields.plain(publication.description()));
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
        item.setModules(List.of(podcast));
        return item;
    }
}

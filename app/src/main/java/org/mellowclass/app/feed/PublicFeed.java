package org.mellowclass.app.feed;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mellowclass.app.feed.FeedMapper.Feed;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.SkylinePicture;
import org.springframework.core.io.Resource;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What listeners can reach: what is on air, and nothing else. */
@Service
@Transactional(readOnly = true)
public class PublicFeed {

    private static final int PICTURE_COLUMNS = 160;
    private static final int MOST_COVERS = 50;

    private final FeedMapper feeds;
    private final SoundStore store;
    private final HandIns handIns;
    private final Voices voices;
    private final Shelf shelf;
    private final FeedCover cover;
    private final Map<String, byte[]> covers = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, byte[]> eldest) {
            return size() > MOST_COVERS;
        }
    };

    PublicFeed(FeedMapper feeds, SoundStore store, HandIns handIns, Voices voices, Shelf shelf, FeedCover cover) {
        this.feeds = feeds;
        this.store = store;
        this.handIns = handIns;
        this.voices = voices;
        this.shelf = shelf;
        this.cover = cover;
    }

    /** It was on air once and has been taken off. */
    public static final class Gone extends RuntimeException {
    }

    Feed feed(String feedKey) {
        return feeds.feed(feedKey).orElseThrow(NotFound::new);
    }

    /** What is on air, the newest first. */
    List<Publication> onAir(String feedKey) {
        return feeds.onAir(feedKey);
    }

    /**
     * One episode on air.
     *
     * @throws NotFound before it is on air, and for keys that never were
     * @throws Gone     after it was taken off
     */
    Publication episode(String feedKey, String publicKey) {
        Publication publication = feeds.ofFeed(feedKey, publicKey).orElseThrow(NotFound::new);
        if (publication.state() == Publication.State.OFF_AIR && publication.onAirAt() != null) {
            throw new Gone();
        }
        if (!publication.onAir()) {
            throw new NotFound();
        }
        return publication;
    }

    /**
     * An episode as listeners meet it.
     *
     * @param names   the on-air names of those who are heard
     * @param credits of the shelf sounds that are heard, in their own words
     */
    record OnAir(Publication publication, List<String> names, List<String> credits) {
    }

    OnAir whole(Publication publication) {
        Set<Long> takes = handIns.takesHeard(publication.handInId());
        return new OnAir(publication, voices.heardIn(publication.episodeId(), takes).stream().map(Voices.Heard::onAirName).distinct().toList(),
                shelf.credits(publication.episodeId(), takes).stream().map(Shelf.Credit::credit).distinct().toList());
    }

    /** The picture of a feed as a PNG, which is drawn once. */
    byte[] cover(Feed feed) {
        String seed = feed.publicKey() + feed.title() + feed.schoolName();
        synchronized (covers) {
            return covers.computeIfAbsent(seed, drawn -> cover.png(feed.title(), feed.schoolName(), feed.publicKey()));
        }
    }

    /** The level of an episode on air over its time. */
    SkylinePicture picture(Publication onAir) {
        return SkylinePicture.of(handIns.skylineOfPublished(onAir.handInId()), PICTURE_COLUMNS);
    }

    Resource sound(String feedKey, String publicKey, String slug) throws IOException {
        Publication publication = episode(feedKey, publicKey);
        if (!publication.fileName().equals(slug)) {
            throw new NotFound();
        }
        return store.stream(publication.soundKey());
    }
}

package org.mellowclass.app.feed;

import java.io.IOException;
import java.util.List;

import org.mellowclass.app.feed.FeedMapper.Feed;
import org.mellowclass.app.review.HandIns;
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

    private final FeedMapper feeds;
    private final SoundStore store;
    private final HandIns handIns;

    PublicFeed(FeedMapper feeds, SoundStore store, HandIns handIns) {
        this.feeds = feeds;
        this.store = store;
        this.handIns = handIns;
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

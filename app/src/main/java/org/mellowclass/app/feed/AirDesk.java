package org.mellowclass.app.feed;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;

import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.publish.AirGate;
import org.mellowclass.core.publish.Slug;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Where a teacher puts an episode on air and takes it off again. */
@Service
public class AirDesk {

    private static final int LONGEST_TITLE = 120;
    private static final int LONGEST_DESCRIPTION = 2000;

    private final FeedMapper feeds;
    private final HandIns handIns;
    private final Access access;
    private final Jobs jobs;
    private final SoundStore store;
    private final Clock clock;
    private final LiveEvents live;
    private final TransactionTemplate transaction;

    AirDesk(FeedMapper feeds, HandIns handIns, Access access, Jobs jobs, SoundStore store, Clock clock,
            LiveEvents live, TransactionTemplate transaction) {
        this.feeds = feeds;
        this.handIns = handIns;
        this.access = access;
        this.jobs = jobs;
        this.store = store;
        this.clock = clock;
        this.live = live;
        this.transaction = transaction;
    }

    /** The newest time an episode, to which the viewer has been let through, was put on air. */
    @Transactional(readOnly = true)
    public Optional<Publication> newest(Episode episode) {
        return feeds.newest(episode.id());
    }

    /** What is on air of an episode. */
    @Transactional(readOnly = true)
    public Optional<Publication> onAir(long episodeId) {
        return feeds.newest(episodeId).filter(Publication::onAir);
    }

    /** The newest publication of each episode of a class that {@link Access#taughtClass} has let through. */
    @Transactional(readOnly = true)
    public List<Publication> newestOfClass(SchoolClass schoolClass) {
        return feeds.newestOfClass(schoolClass.id());
    }

    /** The random key of a class's feed, which is made when it is first asked for. */
    @Transactional
    public String feedKey(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        feeds.addFeed(classId, RandomKey.next());
        return feeds.feedOfClass(classId).orElseThrow(NotFound::new).publicKey();
    }

    /** How far the MP3 has come, in percent. */
    public OptionalInt percent(Publication publication) {
        return jobs.percent(AirPreparation.KIND, publication.id());
    }

    /**
     * Puts the newest hand-in on air if the gate opens: the MP3 is made in the background, and only then can anything be
     * reached. Asking twice gives one publication.
     *
     * @param consentConfirmed the teacher says that every voice in it may be heard in public
     */
    @Transactional
    public void publish(Person viewer, long episodeId, String typedTitle, String typedDescription, boolean consentConfirmed) {
        String title = Fields.plain(typedTitle);
        String description = Fields.plain(typedDescription);
        Episode episode = access.taughtEpisode(viewer, episodeId);
        access.hold(episodeId);
        Optional<HandIn> handIn = handIns.newest(episode);
        Set<AirGate.Missing> missing = AirGate.missing(new AirGate.Facts(handIn.filter(HandIn::cleared).isPresent(),
                title, description, consentConfirmed));
        if (!missing.isEmpty()) {
            throw Refusal.unfit("air." + missing.iterator().next());
        }
        if (title.length() > LONGEST_TITLE || description.length() > LONGEST_DESCRIPTION) {
            throw Refusal.unfit("air.TOO_LONG", LONGEST_TITLE, LONGEST_DESCRIPTION);
        }
        if (feeds.newest(episodeId).filter(Publication::live).isPresent()) {
            return;
        }
        feedKey(viewer, episode.classId());
        feeds.add(episodeId, handIn.orElseThrow().id(), RandomKey.next(), title, description,
                Slug.of(title), viewer.id(), clock.instant());
        live.episodeChanged(episodeId);
        jobs.ask(AirPreparation.KIND, feeds.newest(episodeId).orElseThrow().id());
    }

    /** Takes an episode off air: its addresses are gone at once, and so is its file. */
    public void takeOff(Person viewer, long episodeId) throws IOException {
        access.taughtEpisode(viewer, episodeId);
        Optional<String> file = transaction.execute(status -> {
            access.hold(episodeId);
            return takeOff(episodeId, publication -> true);
        });
        if (file != null && file.isPresent()) {
            store.delete(file.get());
        }
    }

    /**
     * Takes an episode off air that is held, if what is on air or on its way there is as said; returns the key of the file, which has to go
     * when the transaction has ended.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Optional<String> takeOff(long episodeId, Predicate<Publication> which) {
        Optional<Publication> publication = feeds.holdNewest(episodeId).filter(Publication::live).filter(which)
                .filter(live -> feeds.offAir(live.id(), clock.instant()) == 1);
        live.episodeChanged(episodeId);
        return publication.map(Publication::soundKey);
    }
}

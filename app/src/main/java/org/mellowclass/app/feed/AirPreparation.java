package org.mellowclass.app.feed;

import com.github.kagkarlsson.scheduler.task.Task;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.stream.Collectors;
import org.mellowclass.app.brief.Brief;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.media.Mp3Publisher;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundRefused;
import org.mellowclass.media.Tags;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;

/** Makes the MP3 of a cleared hand-in and puts it on air, or in the place of what is on air. */
@Component
class AirPreparation {

    static final String KIND = "on-air";

    /** Decoders may leave an encoder's padding at the ends. */
    private static final long MOST_OFF_FRAMES = Frames.RATE / 10;

    private final FeedMapper feeds;
    private final VoicesOnAir voices;
    private final HandIns handIns;
    private final Briefs briefs;
    private final Shelf shelf;
    private final SoundStore store;
    private final Scratch scratch;
    private final SoundDecoder decoder;
    private final Mp3Publisher publisher;
    private final Jobs jobs;
    private final Clock clock;

    AirPreparation(FeedMapper feeds, VoicesOnAir voices, HandIns handIns, Briefs briefs, Shelf shelf, SoundStore store, Scratch scratch, SoundDecoder decoder,
                   Mp3Publisher publisher, Jobs jobs, Clock clock) {
        this.feeds = feeds;
        this.voices = voices;
        this.handIns = handIns;
        this.briefs = briefs;
        this.shelf = shelf;
        this.store = store;
        this.scratch = scratch;
        this.decoder = decoder;
        this.publisher = publisher;
        this.jobs = jobs;
        this.clock = clock;
    }

    @Configuration
    static class Schedule {
        @Bean
        Task<?> onAirJob(AirPreparation preparation, Jobs jobs) {
            return jobs.kind(KIND, preparation::run, preparation.feeds::failed);
        }
    }

    void run(long publicationId) throws IOException, SoundRefused {
        Publication publication = feeds.find(publicationId).orElseThrow();
        boolean correction = publication.onAir() && publication.nextHandInId() != null;
        if (!correction && publication.state() != Publication.State.PREPARING) {
            return;
        }
        long handInId = correction ? publication.nextHandInId() : publication.handInId();
        HandIns.Cleared cleared = handIns.cleared(handInId);
        Brief brief = briefs.ofEpisode(publication.episodeId());
        FeedMapper.Feed feed = feeds.feedOfClass(brief.classId()).orElseThrow();
        LocalDate today = LocalDate.now(clock.withZone(ZoneId.of(feed.timeZone())));
        Tags tags = new Tags(publication.title(), cleared.crewName(), brief.project(), today, credits(publication.episodeId(), handInId));
        Path mp3 = scratch.scratchFile(Scratch.Owner.episode(publication.episodeId()), ".mp3");
        try (Held mixdown = store.holdWhole(cleared.soundKey())) {
            Mp3Publisher.Published published = publisher.write(() -> open(publicationId, mixdown.file(), cleared.frames()), brief.loudnessLufs(),
                    brief.ceilingDbtp(), tags, mp3);
            if (Math.abs(published.frames() - cleared.frames()) > MOST_OFF_FRAMES) {
                throw new IllegalStateException("the MP3 is " + published.frames() + " frames long and its hand-in " + cleared.frames());
            }
            long bytes = Files.size(mp3);
            String key = store.put(mp3);
            int now = voices.ifTheyMayBeHeard(publication.episodeId(), () -> correction
                    ? feeds.corrected(publicationId, handInId, key, bytes, published.frames(), published.loudnessLufs(), published.truePeakDbtp())
                    : feeds.onAirNow(publicationId, key, bytes, published.frames(), published.loudnessLufs(), published.truePeakDbtp(), clock.instant()));
            if (now == 0) {
                // taken off while it was being made
                store.delete(key);
            } else if (correction) {
                store.delete(publication.soundKey());
            }
        } finally {
            jobs.ended(KIND, publicationId);
            Files.deleteIfExists(mp3);
        }
    }

    private String credits(long episodeId, long handInId) {
        return shelf.credits(episodeId, handIns.takesHeard(handInId)).stream().map(Shelf.Credit::credit).collect(Collectors.joining("; "));
    }

    private SampleSource open(long publicationId, Path mixdown, long frames) throws IOException {
        try {
            SampleSource source = decoder.open(mixdown, decoder.probe(mixdown));
            return new Reporting(source, frames, read -> jobs.progress(KIND, publicationId, read, frames));
        } catch (SoundRefused e) {
            throw new IOException("the kept mixdown cannot be read", e);
        }
    }
}

package org.mellowclass.app.review;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.soundcheck.SoundChecks;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.SkylineFile;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.store.StoredJson;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.review.SharedSound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.SoundCheck;
import org.mellowclass.core.soundcheck.Verdict;
import org.springframework.core.io.Resource;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Hand-ins: made by crews, heard and decided by teachers. */
@Service
@Transactional
public class HandIns {

    private static final int LONGEST_SENTENCE = 500;
    private static final int LONGEST_REASON = 300;
    private static final int LEVEL_FOR_PICTURES = 2;

    private final HandInMapper handIns;
    private final Bench bench;
    private final Access access;
    private final Jobs jobs;
    private final SoundStore store;
    private final StoredJson<SoundCheck> reports;
    private final Clock clock;
    private final LiveEvents live;

    HandIns(HandInMapper handIns, Bench bench, Access access, Jobs jobs, SoundStore store, SoundChecks checks, Clock clock,
            LiveEvents live) {
        this.handIns = handIns;
        this.bench = bench;
        this.access = access;
        this.jobs = jobs;
        this.store = store;
        this.reports = checks.stored();
        this.clock = clock;
        this.live = live;
    }

    /**
     * Freezes the newest revision as a hand-in and starts its mixdown. Handing the same revision in again gives the same
     * hand-in; one whose mixdown failed is made again.
     */
    public HandIn handIn(Person viewer, long episodeId) {
        Head head = bench.lockedHead(viewer, episodeId);
        if (head.timeline().endFrame() == 0) {
            throw Refusal.unfit("hand-in.EMPTY");
        }
        if (access.isPractice(access.ownEpisode(viewer, episodeId).classId())) {
            throw Refusal.conflict("hand-in.PRACTICE");
        }
        Optional<HandIn> earlier = handIns.ofRevision(episodeId, head.seq());
        if (earlier.isEmpty()) {
            handIns.add(episodeId, head.seq(), head.timelineHash(), viewer.id(), head.timeline().endFrame(), clock.instant(),
                    handIns.newest(episodeId).map(before -> Span.total(SharedSound.of(bench.timeline(before.timelineHash()), head.timeline()).anew())).orElse(null));
        }
        HandIn handIn = earlier.orElseGet(() -> handIns.ofRevision(episodeId, head.seq()).orElseThrow());
        if (earlier.isEmpty() || handIns.again(handIn.id()) == 1) {
            jobs.ask(HandInMaking.KIND, handIn.id(), Jobs.ofEpisode(episodeId));
            live.episodeChanged(episodeId);
        }
        return handIn;
    }

    @Transactional(readOnly = true)
    public HandIn find(Person viewer, long handInId) {
        HandIn handIn = handIns.find(handInId).orElseThrow(NotFound::new);
        access.episode(viewer, handIn.episodeId());
        return handIn;
    }

    @Transactional(readOnly = true)
    public List<HandIn> ofEpisode(Person viewer, long episodeId) {
        return handIns.ofEpisode(access.episode(viewer, episodeId).id());
    }

    @Transactional(readOnly = true)
    public Optional<HandIn> newest(Episode episode) {
        return handIns.newest(episode.id());
    }

    /** The newest hand-in of each episode of a class that {@link Access#taughtClass} has let through. */
    @Transactional(readOnly = true)
    public List<HandIn> newestOfClass(SchoolClass schoolClass) {
        return handIns.newestOfClass(schoolClass.id());
    }

    record Row(long id, long episodeId, int number, long frames, Long newFrames, String report, Instant createdAt, String title, String crewName) {
    }

    /**
     * A hand-in that waits for a teacher's ears.
     *
     * @param newFrames how much of it sounds otherwise than the one before; all of it for the first
     * @param worst     the reading that is furthest from good, if any is not
     */
    public record WaitingOne(long id, int number, long frames, long newFrames, Instant createdAt, String title, String crewName, Reading worst) {
    }

    /** Those of a class that wait, the oldest first. */
    @Transactional(readOnly = true)
    public List<WaitingOne> waiting(Person viewer, long classId) {
        return handIns.waiting(access.taughtClass(viewer, classId).id()).stream().map(row -> new WaitingOne(row.id, row.number, row.frames, row.newFrames == null ? row.frames : row.newFrames,
                row.createdAt, row.title, row.crewName, reports.read(row.report).readings().stream().filter(reading -> reading.verdict().compareTo(Verdict.GOOD) > 0)
                .max(Comparator.comparing(Reading::verdict)).orElse(null))).toList();
    }

    /** How far the mixdown has come, in percent. */
    public OptionalInt percent(HandIn handIn) {
        return jobs.percent(HandInMaking.KIND, handIn.id());
    }

    /**
     * Records what the teacher says of a hand-in. Only the newest can be decided, since that is what the crew goes on from;
     * a decision may be changed.
     *
     * @param sentence what the crew should do; needed for another pass
     */
    public HandIn decide(Person viewer, long handInId, HandIn.Decision decision, String sentence) {
        HandIn handIn = handIns.find(handInId).orElseThrow(NotFound::new);
        access.hold(access.taughtEpisode(viewer, handIn.episodeId()).id());
        String words = Fields.plain(sentence);
        if (!handIn.ready()) {
            throw Refusal.conflict("hand-in.NOT_READY");
        }
        if (handIns.newest(handIn.episodeId()).orElseThrow().id() != handIn.id()) {
            throw Refusal.conflict("hand-in.NOT_THE_NEWEST");
        }
        if (decision == HandIn.Decision.ANOTHER_PASS && words.isEmpty()) {
            throw Refusal.unfit("hand-in.SENTENCE_MISSING").at("sentence");
        }
        if (words.length() > LONGEST_SENTENCE) {
            throw Refusal.unfit("hand-in.SENTENCE_TOO_LONG", LONGEST_SENTENCE).at("sentence");
        }
        handIns.decide(handInId, decision, words.isEmpty() ? null : words, viewer.id(), clock.instant());
        live.episodeChanged(handIn.episodeId());
        return handIns.find(handInId).orElseThrow();
    }

    /**
     * A reading that is not good and goes on air all the same.
     *
     * @param reason why, in a teacher's words
     */
    public record LetThrough(Reading.Kind kind, String reason, String personName) {
    }

    @Transactional(readOnly = true)
    public List<LetThrough> lettingThrough(HandIn handIn) {
        return handIns.lettingThrough(handIn.id());
    }

    /** Lets a reading of exactly this hand-in through; whether somebody may, the caller has asked. */
    public void letThrough(Person viewer, HandIn handIn, Reading.Kind kind, String reason) {
        access.hold(access.taughtEpisode(viewer, handIn.episodeId()).id());
        handIns.letThrough(handIn.id(), kind, Fields.required(reason, LONGEST_REASON, "air.REASON"), viewer.id(), clock.instant());
    }

    /** The takes that are heard in a hand-in: on every track that is not muted. */
    @Transactional(readOnly = true)
    public Set<Long> takesHeard(HandIn handIn) {
        return bench.timeline(handIn.timelineHash()).tracks().stream().filter(track -> !track.muted())
                .flatMap(track -> track.clips().stream()).map(clip -> clip.source().takeId()).collect(Collectors.toSet());
    }

    /** As {@link #takesHeard(HandIn)}, for those who know it from their own rows. */
    @Transactional(readOnly = true)
    public Set<Long> takesHeard(long handInId) {
        return takesHeard(handIns.find(handInId).orElseThrow(NotFound::new));
    }

    /** Whether a take is heard in a hand-in. */
    @Transactional(readOnly = true)
    public boolean holds(long handInId, long takeId) {
        return handIns.find(handInId).filter(handIn -> Bench.takesIn(bench.timeline(handIn.timelineHash())).contains(takeId)).isPresent();
    }

    /**
     * Makes the hand-ins of an episode again that hold a take which has just been erased; what was decided of them counts no
     * more. Returns the keys of their files, which have to go when the surrounding transaction has ended.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public List<String> makeAgainWithout(long episodeId, long takeId) {
        List<String> files = new ArrayList<>();
        for (HandIn handIn : handIns.ofEpisode(episodeId)) {
            if (holds(handIn.id(), takeId)) {
                Stream.of(handIn.soundKey(), handIn.skylineKey()).filter(key -> key != null).forEach(files::add);
                handIns.makeAgain(handIn.id());
                handIns.forgetLettingThrough(handIn.id());
                jobs.ask(HandInMaking.KIND, handIn.id(), Jobs.ofEpisode(episodeId));
            }
        }
        return files;
    }

    /** Timelines of an episode are told anew, without somebody's name; their sound is the same. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void retell(long episodeId, Map<String, String> hashes) {
        hashes.forEach((before, after) -> handIns.retell(episodeId, before, after));
    }

    /** The sound check of a ready hand-in. */
    public SoundCheck report(HandIn handIn) {
        return reports.read(handIn.report());
    }

    /** The FLAC file of a ready hand-in. */
    @Transactional(readOnly = true)
    public Resource sound(Person viewer, long handInId) throws IOException {
        HandIn handIn = find(viewer, handInId);
        if (!handIn.ready()) {
            throw new NotFound();
        }
        return store.stream(handIn.soundKey());
    }

    /** Whose class it is of. */
    @Transactional(readOnly = true)
    public long classOf(HandIn handIn) {
        return handIns.classOf(handIn.id());
    }

    /** What is published of a cleared hand-in: the key of its sound, its length at 48 kHz and whose it is. */
    public record Cleared(String soundKey, long frames, String crewName) {
    }

    /** A cleared hand-in, for the job that puts it on air. */
    @Transactional(readOnly = true)
    public Cleared cleared(long handInId) {
        HandIn handIn = handIns.find(handInId).filter(HandIn::cleared).orElseThrow(NotFound::new);
        return new Cleared(handIn.soundKey(), handIn.frames(), handIns.crewName(handIn.episodeId()));
    }

    /** As {@link #skyline}, of one that is on air: for everybody. */
    @Transactional(readOnly = true)
    public byte[] skylineOfPublished(long handInId) {
        return skyline(handIns.find(handInId).orElseThrow(NotFound::new));
    }

    /** The whole skyline of a ready hand-in at a level that suits a picture across a page. */
    public byte[] skyline(HandIn handIn) {
        int bins = (int) SkylineFile.bins(LEVEL_FOR_PICTURES, handIn.frames());
        try (Held skyline = store.hold(handIn.skylineKey())) {
            return SkylineFile.read(skyline.file(), LEVEL_FOR_PICTURES, handIn.frames(), 0, bins);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

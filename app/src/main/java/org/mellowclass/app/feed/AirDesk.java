package org.mellowclass.app.feed;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.review.Listening;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.publish.AirGate;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.Verdict;
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
    private final Voices voices;
    private final Shelf shelf;
    private final AirRules rules;
    private final Listening listening;
    private final Jobs jobs;
    private final SoundStore store;
    private final SecurityLog log;
    private final Clock clock;
    private final LiveEvents live;
    private final TransactionTemplate transaction;

    AirDesk(FeedMapper feeds, HandIns handIns, Access access, Voices voices, Shelf shelf, AirRules rules, Listening listening, Jobs jobs, SoundStore store, SecurityLog log, Clock clock,
            LiveEvents live, TransactionTemplate transaction) {
        this.feeds = feeds;
        this.handIns = handIns;
        this.access = access;
        this.voices = voices;
        this.shelf = shelf;
        this.rules = rules;
        this.listening = listening;
        this.jobs = jobs;
        this.store = store;
        this.log = log;
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
     * What stands between a hand-in and the air.
     *
     * @param voices  every voice that is heard, with what was recorded for it
     * @param unnamed takes that are heard of which nobody has said whose voices are in them
     * @param silent  takes that are heard of which somebody has said that nobody speaks in them: for the teacher to look at
     * @param credits  of the shelf sounds that are heard
     * @param readings that must be good and are not
     * @param unheard  what no teacher has heard, in frames of the hand-in
     * @param unheardReason why it may go on air all the same; null as long as nobody has said so
     */
    public record Gate(List<Voices.Heard> voices, List<Voices.TakeName> unnamed, List<Voices.TakeName> silent, List<Shelf.Credit> credits, List<AtGate> readings, List<Span> unheard, String unheardReason) {

        /** Whether all of it was heard, or somebody has said why it may go out all the same. */
        public boolean heard() {
            return unheard.isEmpty() || unheardReason != null;
        }

        static final Gate OF_NOTHING = new Gate(List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), null);

        public boolean open() {
            return heard() && readings.stream().noneMatch(reading -> reading.letThrough() == null) && unnamed.isEmpty() && credits.stream().noneMatch(sound -> sound.credit().isBlank()) && voices.stream().allMatch(voice -> voice.extent() == Consent.PUBLIC);
        }
    }

    /**
     * A reading that must be good and is not.
     *
     * @param letThrough why it may go on air all the same; null as long as nobody has said so
     */
    public record AtGate(Reading reading, HandIns.LetThrough letThrough) {
    }

    /** Lets a reading of the newest hand-in through, with a reason that is kept. */
    @Transactional
    public void letThrough(Person viewer, long episodeId, Reading.Kind kind, String reason) {
        Episode episode = access.taughtEpisode(viewer, episodeId);
        rules.requireMayLetThrough(viewer, episode.classId());
        handIns.letThrough(viewer, handIns.newest(episode).filter(HandIn::ready).orElseThrow(NotFound::new), kind, reason);
    }

    /** Whether somebody may let readings of an episode's hand-ins through. */
    @Transactional(readOnly = true)
    public boolean mayLetThrough(Person viewer, Episode episode) {
        return !rules.of(episode.classId()).leadOnly() || access.leads(viewer);
    }

    private List<AtGate> readings(HandIn handIn) {
        if (!handIn.ready()) {
            return List.of();
        }
        Set<Reading.Kind> mustBeGood = rules.of(handIns.classOf(handIn)).mustBeGood();
        List<HandIns.LetThrough> through = handIns.lettingThrough(handIn);
        return handIns.report(handIn).readings().stream().filter(reading -> mustBeGood.contains(reading.kind()) && reading.verdict().compareTo(Verdict.GOOD) > 0)
                .map(reading -> new AtGate(reading, through.stream().filter(one -> one.kind() == reading.kind()).findFirst().orElse(null))).toList();
    }

    /** The gate as it stands for a hand-in of an episode that has been let through. */
    @Transactional(readOnly = true)
    public Gate gate(HandIn handIn) {
        Set<Long> takes = handIns.takesHeard(handIn);
        return new Gate(voices.heardIn(handIn.episodeId(), takes), voices.unnamedOf(handIn.episodeId(), takes), voices.withoutVoice(handIn.episodeId(), takes),
                shelf.credits(handIn.episodeId(), takes), readings(handIn),
                listening.ofTeachers(handIn).left(), handIn.unheardReason());
    }

    /**
     * Puts the newest hand-in on air if the gate opens: the MP3 is made in the background, and only then can anything be
     * reached. Asking twice gives one publication. The gate is computed of what was recorded: every voice that is heard may be heard in public.
     */
    @Transactional
    public void publish(Person viewer, long episodeId, String typedTitle, String typedDescription) {
        String title = Fields.plain(typedTitle);
        String description = Fields.plain(typedDescription);
        Episode episode = access.taughtEpisode(viewer, episodeId);
        access.hold(episodeId);
        Optional<HandIn> handIn = handIns.newest(episode);
        requireOpen(handIn, title, description);
        if (title.length() > LONGEST_TITLE || description.length() > LONGEST_DESCRIPTION) {
            throw Refusal.unfit("air.TOO_LONG", LONGEST_TITLE, LONGEST_DESCRIPTION).at("description");
        }
        if (feeds.newest(episodeId).filter(Publication::live).isPresent()) {
            return;
        }
        feedKey(viewer, episode.classId());
        feeds.add(episodeId, handIn.orElseThrow().id(), RandomKey.next(), title, description,
                Slug.of(title), viewer.id(), clock.instant());
        live.episodeChanged(episodeId);
        log.note(viewer.schoolId(), SecurityLog.Kind.PUBLISHED, viewer.id(), null, "episode " + episodeId);
        jobs.ask(AirPreparation.KIND, feeds.newest(episodeId).orElseThrow().id(), Jobs.ofEpisode(episodeId));
    }

    /**
     * The newest hand-in of an episode that is on air, if it is newer than what is on air and cleared: it can take its place.
     */
    @Transactional(readOnly = true)
    public Optional<HandIn> correction(Episode episode) {
        return onAir(episode.id()).flatMap(live -> handIns.newest(episode).filter(HandIn::cleared)
                .filter(handIn -> handIn.id() != live.handInId() && !Objects.equals(handIn.id(), live.nextHandInId())));
    }

    /**
     * Puts the newest cleared hand-in in the place of what is on air, through the same gate: the page and its entry in the feed stay, the file is
     * another one. What is on air stays until the new file is made. Asking twice is asking once.
     */
    @Transactional
    public void correct(Person viewer, long episodeId) {
        Episode episode = access.taughtEpisode(viewer, episodeId);
        access.hold(episodeId);
        Optional<HandIn> handIn = correction(episode);
        if (handIn.isEmpty()) {
            return;
        }
        Publication onAir = onAir(episodeId).orElseThrow();
        requireOpen(handIn, onAir.title(), onAir.description());
        feeds.correct(onAir.id(), handIn.get().id());
        live.episodeChanged(episodeId);
        log.note(viewer.schoolId(), SecurityLog.Kind.PUBLISHED, viewer.id(), null, "correction of episode " + episodeId);
        jobs.ask(AirPreparation.KIND, onAir.id(), Jobs.ofEpisode(episodeId));
    }

    private void requireOpen(Optional<HandIn> handIn, String title, String description) {
        Gate gate = handIn.map(this::gate).orElse(Gate.OF_NOTHING);
        Set<AirGate.Missing> missing = AirGate.missing(new AirGate.Facts(handIn.filter(HandIn::cleared).isPresent(), title, description,
                gate.unnamed().size(), gate.voices().stream().map(AirDesk::voice).toList(), gate.credits().stream().map(Shelf.Credit::credit).toList(),
                (int) gate.readings().stream().filter(reading -> reading.letThrough() == null).count(), gate.heard()));
        if (!missing.isEmpty()) {
            AirGate.Missing first = missing.iterator().next();
            String names = first == AirGate.Missing.CREDITS
                    ? gate.credits().stream().filter(sound -> sound.credit().isBlank()).map(Shelf.Credit::name).collect(Collectors.joining(", "))
                    : gate.voices().stream().filter(voice -> voice.extent() != Consent.PUBLIC).map(Voices.Heard::name).collect(Collectors.joining(", "));
            Refusal refusal = Refusal.unfit("air." + first, names);
            throw first == AirGate.Missing.TITLE || first == AirGate.Missing.DESCRIPTION ? refusal.at(first.name().toLowerCase(Locale.ROOT)) : refusal;
        }
    }

    private static AirGate.Voice voice(Voices.Heard heard) {
        return new AirGate.Voice(heard.name(), heard.extent() == null ? AirGate.Reach.UNKNOWN : AirGate.Reach.valueOf(heard.extent().name()));
    }

    /** Who is said to speak in each take that is heard in a hand-in of an episode that has been let through. */
    @Transactional(readOnly = true)
    public List<Voices.Said> said(HandIn handIn) {
        return voices.said(handIn.episodeId(), handIns.takesHeard(handIn));
    }

    /** Takes an episode off air: its addresses are gone at once, and so is its file. */
    public void takeOff(Person viewer, long episodeId) throws IOException {
        access.taughtEpisode(viewer, episodeId);
        Optional<String> file = transaction.execute(status -> {
            access.hold(episodeId);
            log.note(viewer.schoolId(), SecurityLog.Kind.OFF_AIR, viewer.id(), null, "episode " + episodeId);
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
        Optional<Publication> newest = feeds.holdNewest(episodeId);
        // a correction on its way may hold what is erased now: it is dropped, and its file with it
        newest.filter(it -> it.onAir() && it.nextHandInId() != null).ifPresent(it -> feeds.failed(it.id()));
        Optional<Publication> publication = newest.filter(Publication::live).filter(which)
                .filter(live -> feeds.offAir(live.id(), clock.instant()) == 1);
        live.episodeChanged(episodeId);
        return publication.map(Publication::soundKey);
    }
}

package org.mellowclass.app.sounds;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.github.kagkarlsson.scheduler.task.Task;
import org.mellowclass.app.jobs.Fault;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.store.StoredJson;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeLanding;
import org.mellowclass.app.takes.TakeReady;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.media.SoundRefused;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Makes takes that have arrived ready, of whatever they came as. */
@Component
public class SoundMaking {

    static final String KIND = "take";

    /** It could not be made ready, and everything that came of it is kept: it can be tried again. */
    private static final Set<String> KEPT = Set.of("SPOKEN_IS_KEPT", "FILE_IS_KEPT");

    private static final Logger LOG = LoggerFactory.getLogger(SoundMaking.class);

    private final Map<Take.Origin, Arrival> arrivals;
    private final SoundMapper sounds;
    private final TakeRows takes;
    private final SoundStore store;
    private final Scratch scratch;
    private final Jobs jobs;
    private final TakeMeasuring measuring;
    private final TakeLanding landing;
    private final Access access;
    private final LiveEvents live;
    private final ApplicationEventPublisher events;
    private final TransactionTemplate transaction;
    private final StoredJson<List<Span>> spans;

    SoundMaking(List<Arrival> arrivals, SoundMapper sounds, TakeRows takes, SoundStore store, Scratch scratch, Jobs jobs, TakeMeasuring measuring, TakeLanding landing, Access access,
                LiveEvents live, ApplicationEventPublisher events, TransactionTemplate transaction, ObjectMapper json) {
        this.arrivals = arrivals.stream().flatMap(arrival -> arrival.origins().stream().map(origin -> Map.entry(origin, arrival)))
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
        this.sounds = sounds;
        this.takes = takes;
        this.store = store;
        this.scratch = scratch;
        this.jobs = jobs;
        this.measuring = measuring;
        this.landing = landing;
        this.access = access;
        this.live = live;
        this.events = events;
        this.transaction = transaction;
        this.spans = TakeSounds.spansAsStored(json);
    }

    @Configuration
    static class Schedule {
        @Bean
        Task<?> takeConversionJob(SoundMaking making, Jobs jobs) {
            return jobs.kind(KIND, making::run, making::giveUp);
        }
    }

    /** Asks for a take that has arrived to be made ready, in the transaction in which it did. */
    public void ask(long takeId, String originalKey) {
        sounds.keepOriginal(takeId, originalKey, spans.write(List.of()), AsItCame.WHOLE);
        jobs.ask(KIND, takeId, Jobs.ofEpisode(takes.findWithNotes(takeId).orElseThrow().episodeId()));
    }

    /**
     * Two steps, so that nobody waits for what is measured nor for the disk: the take lands, and is measured then. If the
     * power went between the two, its sound may be cut off, and is made again.
     */
    void run(long takeId) throws IOException {
        Take take = takes.findWithNotes(takeId).orElseThrow();
        boolean cutOff = take.ready() && arrivals.get(take.origin()).canBeMadeAgain() && sounds.findings(takeId).isEmpty()
                && !measuring.soundIsWhole(take);
        if (take.state() == Take.State.ARRIVED || cutOff) {
            makeReady(take);
        }
        if (take.origin() != Take.Origin.NOTE) {
            measuring.ensure(takeId);
        }
    }

    private void makeReady(Take take) throws IOException {
        Arrival arrival = arrivals.get(take.origin());
        Path wav = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".wav");
        Path skyline = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".skyline");
        try {
            String original = sounds.original(take.id()).map(SoundMapper.Original::originalKey).orElse(null);
            Arrival.Made made = arrival.make(take, original, permille -> jobs.progress(KIND, take.id(), permille, 1000), wav, skyline);
            if (made.frames() == 0) {
                refuse(take, SoundRefused.Reason.EMPTY);
                return;
            }
            keep(take, arrival, made, arrival.canBeMadeAgain() ? store.putUnsettled(wav) : store.put(wav), store.put(skyline));
        } catch (SoundRefused refused) {
            refuse(take, refused.reason());
        } catch (IOException failed) {
            if (failed.getCause() instanceof SoundRefused refused) {
                refuse(take, refused.reason());
            } else {
                throw failed;
            }
        } finally {
            jobs.ended(KIND, take.id());
            Files.deleteIfExists(wav);
            Files.deleteIfExists(skyline);
        }
    }

    /** Keeps a take that is ready now; if it was erased while it was being made, or made by another run, its files go at once. */
    private void keep(Take take, Arrival arrival, Arrival.Made made, String soundKey, String skylineKey) throws IOException {
        Optional<Sound> before = sounds.of(take.id(), TreatmentCodec.AS_IT_IS).map(SoundMapper.Row::sound);
        Boolean kept = transaction.execute(status -> {
            access.hold(take.episodeId());
            if (!takes.ready(take.id(), made.frames(), Math.min(made.leadFrames(), made.frames() - 1))) {
                return false;
            }
            sounds.add(take.id(), TreatmentCodec.AS_IT_IS, TreatmentCodec.write(Treatment.NONE));
            Sound sound = sounds.of(take.id(), TreatmentCodec.AS_IT_IS).orElseThrow().sound();
            if (sounds.made(sound.id(), soundKey, skylineKey, made.channels(), before.map(Sound::soundKey).orElse(null)) == 0) {
                status.setRollbackOnly();
                return false;
            }
            sounds.keepOriginal(take.id(), made.originalKey(), spans.write(made.missing()), made.came());
            arrival.kept(take);
            landInOrder(take.episodeId());
            live.episodeChanged(take.episodeId());
            events.publishEvent(new TakeReady(take.id(), take.episodeId()));
            return true;
        });
        if (Boolean.TRUE.equals(kept)) {
            if (before.isPresent() && before.get().made()) {
                store.delete(before.get().soundKey());
                store.delete(before.get().skylineKey());
            }
            return;
        }
        store.delete(soundKey);
        store.delete(skylineKey);
        boolean erased = takes.findWithNotes(take.id()).filter(now -> now.state() == Take.State.ERASED).isPresent();
        if (made.originalKey() != null && (erased || !arrival.canBeMadeAgain())) {
            store.delete(made.originalKey());
        }
    }

    /** Lays on what is ready and has not landed; of those brought in one after another none overtakes the other. */
    private void landInOrder(long episodeId) {
        access.hold(episodeId);
        for (Take take : takes.toLand(episodeId)) {
            Optional<String> track = landing.land(take, takes.place(take), arrivals.get(take.origin()).flags(take));
            takes.landed(take.id(), track.orElse(take.trackName()));
        }
    }

    /** Nothing is deleted: what was spoken stays in its chunks, and a file where it is, whatever went wrong. */
    private void giveUp(long takeId) {
        Take take = takes.findWithNotes(takeId).orElseThrow();
        if (take.ready()) {
            LOG.error("take {} could not be measured", takeId);
            return;
        }
        transaction.executeWithoutResult(status -> {
            takes.failed(takeId, take.cameFromMicrophone() ? "SPOKEN_IS_KEPT" : "FILE_IS_KEPT");
            live.episodeChanged(take.episodeId());
            landInOrder(take.episodeId());
        });
    }

    /** What a take waits for before it is made ready, if it does: room on the disk, or the machine. */
    public Optional<Fault> waitsFor(Take take) {
        return take.state() == Take.State.ARRIVED ? jobs.waitsFor(KIND, take.id()) : Optional.empty();
    }

    /** Whether somebody may ask for a take to be made ready once more. */
    public boolean canBeTriedAgain(Take take) {
        return take.state() == Take.State.FAILED && KEPT.contains(take.problem());
    }

    /** Tries now to make a take ready that waits or was given up; returns its episode. Anything else is left as it is. */
    public long again(Person viewer, long takeId) {
        return Objects.requireNonNull(transaction.execute(status -> {
            Take take = takes.lock(takeId).orElseThrow(NotFound::new);
            access.ownEpisode(viewer, take.episodeId());
            again(take);
            return take.episodeId();
        }));
    }

    /** As {@link #again(Person, long)}, for somebody who has been let through. */
    public void again(long takeId) {
        transaction.executeWithoutResult(status -> again(takes.lockWithNotes(takeId).orElseThrow(NotFound::new)));
    }

    private void again(Take take) {
        boolean waits = waitsFor(take).isPresent();
        boolean givenUp = canBeTriedAgain(take);
        if (givenUp) {
            takes.arrivedAgain(take.id());
        }
        if (waits || givenUp) {
            jobs.again(KIND, take.id(), Jobs.ofEpisode(take.episodeId()));
        }
    }

    /** Nothing of a refused file is kept but its row, which says why. */
    private void refuse(Take take, SoundRefused.Reason reason) throws IOException {
        LOG.info("take {} refused: {}", take.id(), reason);
        String original = sounds.original(take.id()).map(SoundMapper.Original::originalKey).orElse(null);
        transaction.executeWithoutResult(status -> {
            takes.failed(take.id(), reason.name());
            live.episodeChanged(take.episodeId());
            arrivals.get(take.origin()).refused(take);
            sounds.forgetOriginal(take.id());
            landInOrder(take.episodeId());
        });
        if (original != null) {
            store.delete(original);
        }
    }
}

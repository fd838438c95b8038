package org.mellowclass.app.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.store.NamedSounds;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.SoundPreparation.Converted;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Tap;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Makes a take ready, of the chunks of its recording or of the file that was brought in. */
@Component
class TakeConversion {

    static final String KIND = "take";

    /** Encoders pad and trim their ends. */
    private static final long NOT_WORTH_TELLING = Frames.ofMillis(200);
    private static final String SPOKEN_IS_KEPT = "SPOKEN_IS_KEPT";

    private static final Logger LOG = LoggerFactory.getLogger(TakeConversion.class);

    private final TakeMapper takes;
    private final TakeShelf shelf;
    private final SoundStore store;
    private final SoundDecoder decoder;
    private final Jobs jobs;
    private final ObjectMapper json;
    private final SoundPreparation preparation;
    private final TakeMeasuring measuring;
    private final TakeLanding landing;
    private final LiveEvents live;
    private final ApplicationEventPublisher events;
    private final TransactionTemplate transaction;

    TakeConversion(TakeMapper takes, TakeShelf shelf, SoundStore store, SoundDecoder decoder, Jobs jobs, ObjectMapper json,
                   SoundPreparation preparation, TakeMeasuring measuring, TakeLanding landing, LiveEvents live, ApplicationEventPublisher events,
                   TransactionTemplate transaction) {
        this.takes = takes;
        this.shelf = shelf;
        this.store = store;
        this.decoder = decoder;
        this.jobs = jobs;
        this.json = json;
        this.preparation = preparation;
        this.measuring = measuring;
        this.landing = landing;
        this.live = live;
        this.events = events;
        this.transaction = transaction;
    }

    @Configuration
    static class Schedule {
        @Bean
        OneTimeTask<Void> takeConversionJob(TakeConversion conversion) {
            return Jobs.kind(KIND, conversion::run, conversion::giveUp);
        }

        @Bean
        NamedSounds takeSounds(TakeMapper takes) {
            return takes::soundKeys;
        }
    }

    /**
     * Two steps, so that nobody waits for what is measured nor for the disk: the take lands, and is measured then. If the
     * power went between the two, its sound may be cut off, and is made again.
     */
    void run(long takeId) throws IOException {
        Take take = takes.find(takeId).orElseThrow();
        if (take.state() == Take.State.ARRIVED || take.ready() && !take.measured() && take.canBeMadeAgain() && !measuring.soundIsWhole(take)) {
            makeReady(take);
        }
        measuring.ensure(takeId);
    }

    private void makeReady(Take take) throws IOException {
        Path original = store.temporaryFile(".wav");
        Path wav = store.temporaryFile(".wav");
        Path skyline = store.temporaryFile(".skyline");
        try {
            Made made = take.origin() == Take.Origin.RECORDED ? fromChunks(take, original, wav, skyline)
                    : take.madeFrom() != null ? fromTake(take, wav, skyline) : fromFile(take, wav, skyline);
            if (made.frames == 0) {
                refuse(take, SoundRefused.Reason.EMPTY);
                return;
            }
            String originalKey = take.canBeMadeAgain() ? take.originalKey() : store.put(original);
            String soundKey = take.canBeMadeAgain() ? store.putUnsynced(wav) : store.put(wav);
            keep(take.madeReady(made.rate, made.channels, made.frames, originalKey, soundKey, store.put(skyline),
                    json.writeValueAsString(made.missing)), take);
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
            Files.deleteIfExists(original);
            Files.deleteIfExists(wav);
            Files.deleteIfExists(skyline);
        }
    }

    /** Keeps a take that is ready now; if it was erased while it was being made, or made by another run, its files go at once. */
    private void keep(Take ready, Take before) throws IOException {
        Boolean kept = transaction.execute(status -> {
            boolean wanted = takes.ready(ready, before.soundKey()) == 1;
            if (wanted) {
                takes.deleteChunks(ready.id());
                landInOrder(ready.episodeId());
                live.episodeChanged(ready.episodeId());
                events.publishEvent(new TakeReady(ready.id(), ready.episodeId()));
            }
            return wanted;
        });
        if (Boolean.TRUE.equals(kept)) {
            if (before.ready()) {
                store.delete(before.soundKey());
                store.delete(before.skylineKey());
            }
            return;
        }
        for (String key : List.of(ready.soundKey(), ready.skylineKey())) {
            store.delete(key);
        }
        boolean erased = takes.find(ready.id()).filter(now -> now.state() == Take.State.ERASED).isPresent();
        if (ready.originalKey() != null && (erased || ready.origin() == Take.Origin.RECORDED)) {
            store.delete(ready.originalKey());
        }
    }

    /** Lays on what is ready and has not landed; of those brought in one after another none overtakes the other. */
    private void landInOrder(long episodeId) {
        landing.hold(episodeId);
        for (Take take : takes.toLand(episodeId)) {
            if (take.origin() == Take.Origin.BROUGHT_IN && take.placing() == Take.Placing.BEHIND && takes.onTheWayBefore(take) > 0) {
                continue;
            }
            List<Long> flags = takes.flags(take.id()).stream().map(frame -> Frames.converted(frame, take.sourceRate())).toList();
            landing.land(take, flags).filter(track -> !track.equals(take.trackName()))
                    .ifPresent(track -> takes.landedOn(take.id(), track));
            takes.landed(take.id());
        }
    }

    /** What was spoken stays in its chunks, whatever went wrong; a file is still with the one who brought it. */
    private void giveUp(long takeId) {
        Take take = takes.find(takeId).orElseThrow();
        if (take.ready()) {
            LOG.error("take {} could not be measured", takeId);
            return;
        }
        if (take.origin() == Take.Origin.RECORDED) {
            takes.failed(takeId, SPOKEN_IS_KEPT);
            return;
        }
        try {
            refuse(take, SoundRefused.Reason.BROKEN);
        } catch (IOException e) {
            LOG.error("the file of take {} could not be deleted", takeId, e);
        }
    }

    private record Made(int rate, int channels, long frames, List<Span> missing) {
    }

    private Made fromChunks(Take take, Path original, Path wav, Path skyline) throws IOException {
        ChunkSound chunks = new ChunkSound(takes, take);
        try (WavWriter asItCame = WavWriter.create(original, chunks.channels(), chunks.sampleRate(), SampleFormat.PCM_16)) {
            long frames = convert(take, new Tap(chunks, asItCame), chunks.frames(), wav, skyline);
            return new Made(chunks.sampleRate(), chunks.channels(), frames,
                    chunks.missing().stream().map(span -> SoundPreparation.atHouseRate(span, take.sourceRate())).toList());
        }
    }

    private Made fromFile(Take take, Path wav, Path skyline) throws IOException, SoundRefused {
        Path file = store.file(take.originalKey());
        SoundFacts facts = decoder.probe(file);
        Converted sound = preparation.convert(file, facts, permille -> jobs.progress(KIND, take.id(), permille, 1000), wav, skyline);
        return new Made(facts.sampleRate(), sound.channels(), sound.frames(),
                facts.lengthIsCounted() ? cutOff(sound.frames(), sound.expected()) : List.of());
    }

    /** Of another take that is ready. */
    private Made fromTake(Take take, Path wav, Path skyline) throws IOException {
        Take whole = takes.find(take.madeFrom()).filter(Take::ready).orElseThrow(() -> new IOException("the take it is made from is gone"));
        measuring.ensure(whole.id());
        List<Span> clipped = shelf.clipped(takes.find(whole.id()).orElseThrow()).stream().map(spot -> new Span(spot.startFrame(), spot.endFrame())).toList();
        SampleSource made = take.derivation().of(WavReader.open(store.file(whole.soundKey())), clipped, take.driftPpm() == null ? 0 : take.driftPpm());
        return new Made(Frames.RATE, made.channels(), convert(take, made, whole.frames(), wav, skyline), List.of());
    }

    /** What a file promises at its end and does not hold, since it was cut off on its way. */
    private static List<Span> cutOff(long frames, long stated) {
        return stated - frames < NOT_WORTH_TELLING ? List.of() : List.of(new Span(frames, stated));
    }

    private long convert(Take take, SampleSource incoming, long expectedFrames, Path wav, Path skyline) throws IOException {
        return preparation.convert(incoming, expectedFrames, read -> jobs.progress(KIND, take.id(), read, expectedFrames), wav, skyline);
    }

    /** Nothing of a refused file is kept but its row, which says why. */
    private void refuse(Take take, SoundRefused.Reason reason) throws IOException {
        LOG.info("take {} refused: {}", take.id(), reason);
        takes.failed(take.id(), reason.name());
        live.episodeChanged(take.episodeId());
        takes.deleteChunks(take.id());
        transaction.executeWithoutResult(status -> landInOrder(take.episodeId()));
        if (take.originalKey() != null) {
            store.delete(take.originalKey());
        }
    }
}

package org.mellowclass.app.sounds;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

import com.github.kagkarlsson.scheduler.task.Task;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.store.DerivedStore;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.treatment.Treatment;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Makes the sounds of takes by treatments, in the background, once for all clips that play them. They can always be made again. */
@Service
public class Treating {

    static final String KIND = "treatment";

    private static final Logger LOG = LoggerFactory.getLogger(Treating.class);

    private final SoundMapper sounds;
    private final TakeRows takes;
    private final TakeMeasuring measuring;
    private final SoundPreparation preparation;
    private final ReturnedFiles returned;
    private final SoundStore store;
    private final DerivedStore derived;
    private final Scratch scratch;
    private final Access access;
    private final ApplicationEventPublisher events;
    private final Jobs jobs;
    private final TransactionTemplate transaction;

    Treating(SoundMapper sounds, TakeRows takes, TakeMeasuring measuring, SoundPreparation preparation, ReturnedFiles returned, SoundStore store, DerivedStore derived,
             Scratch scratch, Access access,
             ApplicationEventPublisher events, Jobs jobs, TransactionTemplate transaction) {
        this.sounds = sounds;
        this.takes = takes;
        this.measuring = measuring;
        this.preparation = preparation;
        this.returned = returned;
        this.store = store;
        this.derived = derived;
        this.scratch = scratch;
        this.access = access;
        this.events = events;
        this.jobs = jobs;
        this.transaction = transaction;
    }

    @Configuration
    static class Schedule {
        @Bean
        Task<?> treatmentJob(Treating treating, Jobs jobs) {
            return jobs.kind(KIND, treating::run, treating::giveUp);
        }
    }

    /** Asks for a sound to be made, if it is not there; one that could not be made is tried again. */
    public Sound want(long takeId, Treatment treatment) {
        String key = TreatmentCodec.key(treatment);
        return sounds.of(takeId, key).map(SoundMapper.Row::sound).filter(Sound::made).orElseGet(() -> ask(takeId, key, treatment));
    }

    private Sound ask(long takeId, String key, Treatment treatment) {
        return transaction.execute(status -> {
            sounds.add(takeId, key, TreatmentCodec.write(treatment));
            Sound sound = sounds.of(takeId, key).orElseThrow().sound();
            if (!sound.made()) {
                sounds.failed(sound.id(), false);
                jobs.ask(KIND, sound.id(), Jobs.ofEpisode(takes.find(takeId).orElseThrow().episodeId()));
            }
            return sound;
        });
    }

    /** Makes a sound now, if it is not there. */
    public void ensure(long takeId, Treatment treatment) throws IOException {
        measuring.ensure(takeId);
        if (!treatment.equals(Treatment.NONE)) {
            run(want(takeId, treatment).id());
        }
    }

    /** The file of a sound is gone: it is made again. */
    void lost(Sound sound) {
        LOG.info("sound {} is gone and is made again", sound.id());
        sounds.lost(sound.id(), sound.soundKey());
        want(sound.takeId(), sound.treatment());
    }

    void run(long soundId) throws IOException {
        Sound sound = sounds.find(soundId).map(SoundMapper.Row::sound).orElse(null);
        Take take = sound == null ? null : takes.find(sound.takeId()).orElseThrow();
        if (take == null || !take.ready() || sound.made()) {
            return;
        }
        TakeFindings findings = measuring.ensure(take.id());
        Path wav = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".wav");
        Path skyline = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".skyline");
        try (Held whole = store.holdWhole(sounds.of(take.id(), TreatmentCodec.AS_IT_IS).orElseThrow().soundKey());
             RandomAccessSound asItIs = jobs.courteousSound(WavReader.open(whole.file()));
             SampleSource treated = sound.treatment().process(Opening.of(asItIs), findings.forTreatment(id -> returned.open(id, take)))) {
            preparation.convert(treated, take.frames(), read -> jobs.progress(KIND, soundId, read, take.frames()), wav, skyline);
            keep(sound, take, derived.put(wav), derived.put(skyline), treated.channels());
        } finally {
            jobs.ended(KIND, soundId);
            Files.deleteIfExists(wav);
            Files.deleteIfExists(skyline);
        }
    }

    /** If the take was erased meanwhile, or another run was faster, what was made goes at once. */
    private void keep(Sound sound, Take take, String soundKey, String skylineKey, int channels) throws IOException {
        Boolean kept = transaction.execute(status -> {
            access.hold(take.episodeId());
            boolean wanted = takes.lock(take.id()).filter(Take::ready).isPresent()
                    && sounds.made(sound.id(), soundKey, skylineKey, channels, null) == 1;
            if (wanted) {
                events.publishEvent(new SoundsChanged(take.episodeId()));
            }
            return wanted;
        });
        if (!Boolean.TRUE.equals(kept)) {
            derived.delete(soundKey);
            derived.delete(skylineKey);
        }
    }

    void giveUp(long soundId) {
        LOG.error("sound {} could not be made", soundId);
        sounds.failed(soundId, true);
        sounds.find(soundId).flatMap(row -> takes.find(row.takeId())).ifPresent(take -> events.publishEvent(new SoundsChanged(take.episodeId())));
    }
}

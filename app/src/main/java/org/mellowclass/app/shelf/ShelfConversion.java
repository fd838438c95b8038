package org.mellowclass.app.shelf;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.github.kagkarlsson.scheduler.task.Task;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.sounds.SoundPreparation;
import org.mellowclass.app.sounds.SoundPreparation.Converted;
import org.mellowclass.app.sounds.TakeFindings;
import org.mellowclass.app.sounds.TakeMeasuring;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;

/** Makes a shelf sound ready. */
@Component
class ShelfConversion {

    static final String KIND = "shelf";

    private final ShelfMapper sounds;
    private final SoundStore store;
    private final Scratch scratch;
    private final SoundDecoder decoder;
    private final SoundPreparation preparation;
    private final Jobs jobs;
    private final ObjectMapper json;

    ShelfConversion(ShelfMapper sounds, SoundStore store, Scratch scratch, SoundDecoder decoder, SoundPreparation preparation, Jobs jobs,
                    ObjectMapper json) {
        this.sounds = sounds;
        this.store = store;
        this.scratch = scratch;
        this.decoder = decoder;
        this.preparation = preparation;
        this.jobs = jobs;
        this.json = json;
    }

    @Configuration
    static class Schedule {
        @Bean
        Task<?> shelfConversionJob(ShelfConversion conversion, Jobs jobs) {
            return jobs.kind(KIND, conversion::run, id -> conversion.sounds.notMade(id, "FILE_IS_KEPT"));
        }
    }

    void run(long soundId) throws IOException {
        ShelfSound sound = sounds.find(soundId).orElseThrow();
        if (sound.state() != ShelfSound.State.ARRIVED) {
            return;
        }
        Path wav = scratch.scratchFile(Scratch.Owner.shelf(sound.classId()), ".wav");
        Path skyline = scratch.scratchFile(Scratch.Owner.shelf(sound.classId()), ".skyline");
        try (Held original = store.holdWhole(sound.originalKey())) {
            Path file = original.file();
            SoundFacts facts = decoder.probe(file);
            Converted made = preparation.convert(file, facts, permille -> jobs.progress(KIND, soundId, permille, 1000), wav, skyline);
            if (made.frames() == 0) {
                refuse(soundId, SoundRefused.Reason.EMPTY);
                return;
            }
            TakeFindings measured;
            try (WavReader atHouseRate = WavReader.open(wav)) {
                measured = preparation.measure(decoder.open(file, facts), TakeMeasuring.search(facts), atHouseRate);
            }
            sounds.ready(soundId, facts.sampleRate(), store.put(wav), store.put(skyline), made.channels(), made.frames(),
                    TakeSounds.spotsAsStored(json).write(measured.clipped()));
        } catch (SoundRefused refused) {
            refuse(soundId, refused.reason());
        } catch (IOException failed) {
            if (!(failed.getCause() instanceof SoundRefused refused)) {
                throw failed;
            }
            refuse(soundId, refused.reason());
        } finally {
            jobs.ended(KIND, soundId);
            Files.deleteIfExists(wav);
            Files.deleteIfExists(skyline);
        }
    }

    /** The file that it was made from is swept away, since no row names it any more. */
    private void refuse(long soundId, SoundRefused.Reason reason) {
        sounds.failed(soundId, reason.name());
    }
}

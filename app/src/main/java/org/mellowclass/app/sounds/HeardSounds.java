package org.mellowclass.app.sounds;

import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.github.kagkarlsson.scheduler.task.Task;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.store.StoredJson;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.core.cleanup.Harm;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.soundcheck.HeardSound;
import org.mellowclass.core.soundcheck.Voices;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.Treatment;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Service;

/** What the sound check wants to know of the sounds of takes, and what harm was done by cleaning: measured when it is first asked for. */
@Service
public class HeardSounds {

    static final String KIND = "heard";

    private static final Logger LOG = LoggerFactory.getLogger(HeardSounds.class);

    private final SoundMapper sounds;
    private final TakeSounds takeSounds;
    private final TakeShelf takes;
    private final TakeRows rows;
    private final Treating treating;
    private final Jobs jobs;
    private final StoredJson<HeardSound> stored;
    private final StoredJson<Harm> harms;

    HeardSounds(SoundMapper sounds, TakeSounds takeSounds, TakeShelf takes, TakeRows rows, Treating treating, Jobs jobs, ObjectMapper json) {
        this.sounds = sounds;
        this.takeSounds = takeSounds;
        this.takes = takes;
        this.rows = rows;
        this.treating = treating;
        this.jobs = jobs;
        this.stored = StoredJson.of(json, new TypeReference<>() {
        });
        this.harms = StoredJson.of(json, new TypeReference<>() {
        });
    }

    @Configuration
    static class Schedule {
        @Bean
        Task<?> heardJob(HeardSounds heard, Jobs jobs) {
            return jobs.kind(KIND, heard::run, soundId -> LOG.error("sound {} could not be measured", soundId));
        }
    }

    /**
     * A take before and after its cleanup.
     *
     * @param before   as it was treated without it
     * @param beforeId the sounds, for their pictures
     */
    public record Compared(HeardSound before, HeardSound after, Harm harm, long beforeId, long afterId) {
    }

    /** As {@link #compared}, of what is made and measured already; nothing is asked for. */
    public Optional<Compared> comparedIfMade(long takeId, Treatment cleaned) {
        return sounds.of(takeId, TreatmentCodec.key(cleaned)).map(SoundMapper.Row::sound).filter(Sound::made).flatMap(sound -> compared(takeId, sound));
    }

    private Optional<Compared> compared(long takeId, Sound cleaned) {
        Treatment without = uncleaned(cleaned.treatment());
        Optional<HeardSound> before = known(takeId, without);
        Optional<HeardSound> after = known(takeId, cleaned.treatment());
        Optional<Harm> harm = sounds.harmOf(cleaned.id()).map(harms::read);
        return before.isPresent() && after.isPresent() && harm.isPresent()
                ? Optional.of(new Compared(before.get(), after.get(), harm.get(), sounds.of(takeId, TreatmentCodec.key(without)).orElseThrow().sound().id(), cleaned.id()))
                : Optional.empty();
    }

    /** Whether a sound was tried to be made, in vain. */
    public boolean failed(long takeId, Treatment treatment) {
        return sounds.of(takeId, TreatmentCodec.key(treatment)).map(SoundMapper.Row::sound).filter(Sound::failed).isPresent();
    }

    /** What a cleanup makes of a take that has been let through; empty while it is made and measured, which is asked for. */
    public Optional<Compared> compared(long takeId, Treatment cleaned) {
        Sound sound = treating.want(takeId, cleaned);
        Optional<Compared> made = compared(takeId, sound);
        if (made.isEmpty()) {
            jobs.ask(KIND, sound.id(), Jobs.ofEpisode(rows.find(takeId).orElseThrow().episodeId()));
        }
        return made;
    }

    /** How far a sound has come that is being made, in percent. */
    public OptionalInt percent(long takeId, Treatment treatment) {
        return sounds.of(takeId, TreatmentCodec.key(treatment)).map(row -> jobs.percent(Treating.KIND, row.id())).orElseGet(OptionalInt::empty);
    }

    /** A treatment without its cleanup. */
    public static Treatment uncleaned(Treatment treatment) {
        return treatment.with(new CleanUp(Recipe.of(), null));
    }

    private Optional<HeardSound> known(long takeId, Treatment treatment) {
        return sounds.of(takeId, TreatmentCodec.key(treatment)).flatMap(row -> sounds.heardOf(row.id())).map(stored::read);
    }

    void run(long soundId) throws IOException {
        Optional<Sound> found = sounds.find(soundId).map(SoundMapper.Row::sound);
        if (found.isEmpty() || rows.find(found.get().takeId()).filter(Take::ready).isEmpty()) {
            return;
        }
        Sound sound = found.get();
        Treatment before = uncleaned(sound.treatment());
        treating.ensure(sound.takeId(), before);
        treating.ensure(sound.takeId(), sound.treatment());
        measure(sound.takeId(), before);
        measure(sound.takeId(), sound.treatment());
        if (sounds.harmOf(soundId).isEmpty()) {
            try (RandomAccessSound was = takeSounds.open(sound.takeId(), before); RandomAccessSound is = takeSounds.open(sound.takeId(), sound.treatment())) {
                sounds.harm(soundId, harms.write(Harm.of(Opening.of(was), Opening.of(is), Heard.of(Opening.of(was)))));
            }
        }
    }

    /** Measures a sound and the take that it is of, unless they have been; both are made. */
    public void ensure(TakeSource source) throws IOException {
        measure(source.takeId(), source.treatment());
        measure(source.takeId(), Treatment.NONE);
    }

    private void measure(long takeId, Treatment treatment) throws IOException {
        Optional<Sound> sound = sounds.of(takeId, TreatmentCodec.key(treatment)).map(SoundMapper.Row::sound);
        if (sound.isPresent() && sound.get().made() && sounds.heardOf(sound.get().id()).isEmpty()) {
            sounds.heard(sound.get().id(), stored.write(measured(takeId, treatment)));
        }
    }

    /** What was clipped is known of the take as it came; here it is too late to be seen. */
    private HeardSound measured(long takeId, Treatment treatment) throws IOException {
        try (RandomAccessSound sound = takeSounds.open(takeId, treatment); SampleSource whole = Opening.of(sound).open()) {
            HeardSound.Meters meters = new HeardSound.Meters(sound.channels());
            TruePeakMeter truePeak = new TruePeakMeter(sound.channels());
            SampleSink.drain(whole, meters, truePeak);
            return meters.heard(truePeak.truePeakDbtp(), takeSounds.findings(takeId).map(TakeFindings::clipped).orElseThrow());
        }
    }

    /** What is known of the takes of an episode that has been let through. */
    public Voices.Facts of(long episodeId) {
        Map<Long, Take> ready = takes.ready(episodeId);
        record Key(long takeId, String treatmentKey) {
        }
        Map<Key, HeardSound> heard = new HashMap<>();
        Set<Long> withoutVoice = sounds.withoutVoice(episodeId);
        sounds.heardOfEpisode(episodeId).forEach(row -> heard.put(new Key(row.takeId(), row.treatmentKey()), stored.read(row.heard())));
        return new Voices.Facts() {
            @Override
            public boolean voice(long takeId) {
                return ready.containsKey(takeId) && ready.get(takeId).origin() != Take.Origin.SHELF && !withoutVoice.contains(takeId);
            }

            @Override
            public boolean credited(long takeId) {
                return ready.containsKey(takeId) && ready.get(takeId).origin() == Take.Origin.SHELF;
            }

            @Override
            public Optional<HeardSound> heard(long takeId, Treatment treatment) {
                return Optional.ofNullable(heard.get(new Key(takeId, TreatmentCodec.key(treatment))));
            }
        };
    }
}

package org.mellowclass.app.sounds;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Voices.Side;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Takes the voice on one side out of a take for good: the other side is as it was, frame by frame, and nothing is left of what came. */
@Service
public class SilencedSide {

    private final SoundMapper sounds;
    private final ForgottenSounds forgotten;
    private final SoundPreparation preparation;
    private final SoundStore store;
    private final Scratch scratch;
    private final Jobs jobs;

    SilencedSide(SoundMapper sounds, ForgottenSounds forgotten, SoundPreparation preparation, SoundStore store, Scratch scratch, Jobs jobs) {
        this.sounds = sounds;
        this.forgotten = forgotten;
        this.preparation = preparation;
        this.store = store;
        this.scratch = scratch;
        this.jobs = jobs;
    }

    /** The files of a take that has lost a side, which no row names yet. */
    public record Made(String originalKey, String soundKey, String skylineKey) {
    }

    /**
     * Makes the files.
     *
     * @throws SoundNotMade if the take is not ready, or has not two sides
     */
    public Made make(Take take, Side silent) throws IOException {
        Sound whole = sounds.of(take.id(), TreatmentCodec.AS_IT_IS).map(SoundMapper.Row::sound).filter(sound -> sound.made() && sound.channels() == 2)
                .orElseThrow(() -> new SoundNotMade(take.id()));
        Path wav = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".wav");
        Path original = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".wav");
        Path skyline = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".skyline");
        try (Held held = store.holdWhole(whole.soundKey())) {
            Sides kept = silent == Side.LEFT ? Sides.WITHOUT_LEFT : Sides.WITHOUT_RIGHT;
            preparation.convert(kept.of(WavReader.open(held.file())), take.frames(), read -> { }, wav, skyline);
            Files.copy(wav, original, StandardCopyOption.REPLACE_EXISTING);
            return new Made(store.put(original), store.put(wav), store.put(skyline));
        } finally {
            Files.deleteIfExists(wav);
            Files.deleteIfExists(original);
            Files.deleteIfExists(skyline);
        }
    }

    /** Puts the files in the place of all that the take had; returns the keys of what it had, which has to go when the transaction has ended. */
    @Transactional(propagation = Propagation.MANDATORY)
    public List<String> replace(Take take, Made made) {
        Optional<SoundMapper.Original> original = sounds.original(take.id());
        List<String> before = new ArrayList<>(forgotten.forget(take.id()));
        sounds.keepOriginal(take.id(), made.originalKey, original.map(SoundMapper.Original::missing).orElse("[]"), original.map(SoundMapper.Original::came).orElse(AsItCame.WHOLE));
        sounds.add(take.id(), TreatmentCodec.AS_IT_IS, TreatmentCodec.write(Treatment.NONE));
        sounds.made(sounds.of(take.id(), TreatmentCodec.AS_IT_IS).orElseThrow().sound().id(), made.soundKey, made.skylineKey, 2, null);
        jobs.ask(SoundMaking.KIND, take.id(), Jobs.ofEpisode(take.episodeId()));
        return before;
    }
}

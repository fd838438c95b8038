package org.mellowclass.app.sounds;

import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Gives takes sounds that are kept elsewhere, as those from the shelf are. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class BorrowedSounds {

    private final SoundMapper sounds;

    BorrowedSounds(SoundMapper sounds) {
        this.sounds = sounds;
    }

    /**
     * What is kept of a sound that is ready.
     *
     * @param clipped its clipped spots as they are stored
     */
    public record Files(String soundKey, String skylineKey, int channels, String clipped) {
    }

    /** Lets a new take play them. */
    public void lend(long takeId, Files files) {
        sounds.add(takeId, TreatmentCodec.AS_IT_IS, TreatmentCodec.write(Treatment.NONE));
        sounds.made(sounds.of(takeId, TreatmentCodec.AS_IT_IS).orElseThrow().id(), files.soundKey, files.skylineKey, files.channels, null);
        sounds.found(takeId, files.clipped, StereoFinder.Noticed.NOTHING, null);
    }
}

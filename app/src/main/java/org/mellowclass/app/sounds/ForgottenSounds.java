package org.mellowclass.app.sounds;

import java.util.ArrayList;
import java.util.List;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Forgets everything that was ever made of a take. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class ForgottenSounds {

    private final SoundMapper sounds;

    ForgottenSounds(SoundMapper sounds) {
        this.sounds = sounds;
    }

    /** Empties the rows; returns the keys of the files that have to go when the transaction has ended. */
    public List<String> forget(long takeId) {
        List<String> files = new ArrayList<>();
        for (SoundMapper.Row sound : sounds.ofTake(takeId)) {
            files.add(sound.soundKey());
            files.add(sound.skylineKey());
        }
        sounds.original(takeId).ifPresent(original -> files.add(original.originalKey()));
        files.addAll(sounds.returnedOfTake(takeId));
        sounds.forgetReturned(takeId);
        sounds.forget(takeId);
        sounds.forgetFindings(takeId);
        sounds.forgetOriginal(takeId);
        files.removeIf(key -> key == null);
        return files;
    }
}

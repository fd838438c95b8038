package org.mellowclass.core.treatment;

import java.io.IOException;
import java.util.Optional;

import org.mellowclass.core.sound.SampleSource;

/**
 * Plays a file in the place of the take: the take itself, as another program has treated it. Its frames are the take's. Where the file
 * is gone, the take is played.
 *
 * @param returnedId which of the files that came back
 */
public record PlayReturned(long returnedId) implements Step {

    @Override
    public SampleSource process(SampleSource sound, Findings findings) throws IOException {
        Optional<SampleSource> returned = findings.returned().open(returnedId);
        if (returned.isPresent()) {
            sound.close();
        }
        return returned.orElse(sound);
    }

    @Override
    public int order() {
        return 0;
    }
}

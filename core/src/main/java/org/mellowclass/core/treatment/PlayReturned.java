package org.mellowclass.core.treatment;

import java.io.IOException;
import java.util.Optional;

import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;

/**
 * Plays a file in the place of the take: the take itself, as another program has treated it. Its frames are the take's. Where the file
 * is gone, the take is played.
 *
 * @param returnedId which of the files that came back
 */
public record PlayReturned(long returnedId) implements Step {

    @Override
    public SampleSource process(Opening sound, Findings findings) throws IOException {
        Optional<SampleSource> returned = findings.returned().open(returnedId);
        return returned.isPresent() ? returned.get() : sound.open();
    }

    @Override
    public int order() {
        return 0;
    }
}

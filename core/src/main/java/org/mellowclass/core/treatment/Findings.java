package org.mellowclass.core.treatment;

import java.io.IOException;
import java.util.List;
import java.util.Optional;

import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/**
 * What steps must know of the whole take, found once, before anything is done to it.
 *
 * @param clipped  where it is clipped, in order, in its frames at 48 kHz
 * @param returned where files are that came back treated
 */
public record Findings(List<Span> clipped, Returned returned) {

    /** Opens a file that came back, at 48 kHz, no longer than the take; empty if it is gone, since a voice in it was erased. */
    @FunctionalInterface
    public interface Returned {
        Optional<SampleSource> open(long returnedId) throws IOException;
    }

    public Findings {
        clipped = List.copyOf(clipped);
    }
}

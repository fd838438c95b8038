package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Set;

/** Keeps what cannot be made again: what people brought and said, takes and mixdowns, each with its checksum. */
public interface SoundStore extends KeptBytes {

    /**
     * As {@link #put}, but a power cut may still take from it and it has no checksum: for what can be made again until
     * {@link #settle}, and must not wait for the disk.
     */
    String putUnsettled(Path finished) throws IOException;

    /** Makes sure that a power cut takes nothing from a file, and keeps its checksum. */
    void settle(String key) throws IOException;

    /**
     * As {@link #hold}, for what is read whole.
     *
     * @throws DamagedFile if it is not what was put
     */
    Held holdWhole(String key) throws IOException;

    /** How many bytes a file has; 0 if there is none. */
    long size(String key) throws IOException;

    /**
     * Moves files, finished or on their way, that were last written before a moment and whose keys are not among those to keep into
     * the bin, and empties the bin of what has lain there since before another.
     *
     * @return how many have been moved
     * @throws SuspiciousSweep if that would be more than a small share, as after a mistake in the database; nothing is moved then
     */
    int sweep(Set<String> keep, Instant writtenBefore, Instant binnedBefore) throws IOException;
}

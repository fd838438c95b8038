package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Set;

/** Keeps files of sound under random keys. A file that was put never changes. */
public interface SoundStore {

    /** Moves a finished file into the store: synced, then renamed, then given a key. */
    String put(Path finished) throws IOException;

    /**
     * As {@link #put}, but a power cut may still take from it: for what can be made again, and must not wait for the disk.
     */
    String putUnsynced(Path finished) throws IOException;

    /** Makes sure that a power cut takes nothing from a file. */
    void sync(String key) throws IOException;

    /** The file of a key, for reading. */
    Path file(String key) throws IOException;

    /** Deletes a file; one that is gone already is no error. */
    void delete(String key) throws IOException;

    /**
     * Deletes files, finished or on their way, that were last written before a moment and whose keys are not among those
     * to keep.
     *
     * @return how many
     */
    int sweep(Set<String> keep, Instant writtenBefore) throws IOException;
}

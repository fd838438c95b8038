package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.file.Path;

import org.springframework.core.io.Resource;

/** Keeps files under random keys. One that was put never changes. */
public interface KeptBytes {

    /** Moves a finished file in: whole on the disk before it has a key. */
    String put(Path finished) throws IOException;

    /**
     * Makes a file available on the local disk until it is closed.
     *
     * @throws java.nio.file.NoSuchFileException if there is none
     */
    Held hold(String key) throws IOException;

    /**
     * A file as it is sent to somebody, in whole or in ranges.
     *
     * @throws java.nio.file.NoSuchFileException if there is none
     */
    Resource stream(String key) throws IOException;

    /** Deletes a file for good; one that is gone already is no error. */
    void delete(String key) throws IOException;
}

package org.mellowclass.app.store;

import java.io.IOException;

/** Keeps what can be made again: it may be gone at any time. */
public interface DerivedStore extends KeptBytes {

    /**
     * Deletes what has not been used for longest until no more than so much is left.
     *
     * @return how many files
     */
    int evict(long mostBytes) throws IOException;
}

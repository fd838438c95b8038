package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.file.Path;

/** Room on the local disk for work on its way. What a process that has ended left there goes when the next one starts. */
public interface Scratch {

    /** Whose sound the work is about: when that is erased, the work goes too. */
    record Owner(String name) {

        public static Owner episode(long id) {
            return new Owner("episode-" + id);
        }

        /** Sounds of its shelf. */
        public static Owner shelf(long classId) {
            return new Owner("shelf-" + classId);
        }
    }

    /** A new empty file, for work that ends in {@link SoundStore#put}; whoever asks for it deletes it. */
    Path scratchFile(Owner owner, String suffix) throws IOException;

    /** A new empty file for what comes in parts: it outlives the process. Whoever names it deletes it. */
    Path partFile() throws IOException;

    /** Deletes one of those; one that is gone already is no error. */
    void deletePart(String path) throws IOException;

    /** Deletes all work of an owner. Whoever is at it finds its file gone, and begins again if there is still something to do. */
    void forget(Owner owner) throws IOException;
}

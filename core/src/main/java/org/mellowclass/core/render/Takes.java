package org.mellowclass.core.render;

import java.io.IOException;

import org.mellowclass.core.sound.RandomAccessSound;

/** Where the mixer finds the sound of a take. */
@FunctionalInterface
public interface Takes {

    /**
     * Opens the sound of a take; the caller closes it.
     *
     * @throws IOException if there is no such take or it cannot be read
     */
    RandomAccessSound open(long takeId) throws IOException;
}

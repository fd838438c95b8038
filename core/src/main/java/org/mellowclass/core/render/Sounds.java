package org.mellowclass.core.render;

import java.io.IOException;

import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.treatment.Treatment;

/** Where the mixer finds the sound of a take by a treatment. */
@FunctionalInterface
public interface Sounds {

    /**
     * Opens a sound at 48 kHz; the caller closes it.
     *
     * @throws IOException if there is no such take, its sound has not been made, or it cannot be read
     */
    RandomAccessSound open(long takeId, Treatment treatment) throws IOException;
}

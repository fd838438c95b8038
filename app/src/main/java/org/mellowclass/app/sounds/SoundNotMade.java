package org.mellowclass.app.sounds;

import java.io.IOException;

/** A sound that will be there in a moment: it is being made. */
public final class SoundNotMade extends IOException {

    SoundNotMade(long takeId) {
        super("a sound of take " + takeId + " is being made");
    }
}

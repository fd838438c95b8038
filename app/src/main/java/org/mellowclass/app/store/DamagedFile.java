package org.mellowclass.app.store;

import java.io.IOException;

/** A kept file is not what was put: its disk has changed it. */
public final class DamagedFile extends IOException {

    DamagedFile(String key) {
        super("the file " + key + " of the sound store is damaged: its checksum differs");
    }
}

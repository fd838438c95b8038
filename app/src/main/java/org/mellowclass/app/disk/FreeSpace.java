package org.mellowclass.app.disk;

import java.io.IOException;

/** How much room there is on the disk of the stores. */
@FunctionalInterface
public interface FreeSpace {

    long bytes() throws IOException;
}

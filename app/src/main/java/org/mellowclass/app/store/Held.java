package org.mellowclass.app.store;

import java.io.Closeable;
import java.io.IOException;
import java.nio.file.Path;

/** A file of a store that is on the local disk for as long as it is held. */
public record Held(Path file, Closeable release) implements Closeable {

    @Override
    public void close() throws IOException {
        release.close();
    }
}

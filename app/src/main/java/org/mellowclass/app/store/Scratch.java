package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.file.Path;

/** Room on the local disk for work on its way. */
public interface Scratch {

    /** A new empty file, for work that ends in {@link SoundStore#put}; whoever asks for it deletes it. */
    Path scratchFile(String suffix) throws IOException;
}

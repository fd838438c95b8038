package org.mellowclass.app.incoming;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundRefused;
import org.springframework.stereotype.Component;

/** Keeps files that people send. They are looked at first, and refused at once if they hold no sound. */
@Component
public class IncomingFiles {

    private static final int LONGEST_NAME = 120;

    private final SoundStore store;
    private final Scratch scratch;
    private final SoundDecoder decoder;

    IncomingFiles(SoundStore store, Scratch scratch, SoundDecoder decoder) {
        this.store = store;
        this.scratch = scratch;
        this.decoder = decoder;
    }

    /** Moves a file to a path; what an upload knows to do with itself. */
    @FunctionalInterface
    public interface Upload {
        void moveTo(Path target) throws IOException;
    }

    /** The key of the file in the store; refuses one that cannot be used. */
    public String keep(Upload upload) throws IOException {
        Path arriving = scratch.scratchFile(".upload");
        try {
            upload.moveTo(arriving);
            decoder.probe(arriving);
            return store.put(arriving);
        } catch (SoundRefused refused) {
            throw Refusal.unfit("take." + refused.reason());
        } finally {
            Files.deleteIfExists(arriving);
        }
    }

    /** A name for the sound, of what its owner called the file; never trusted otherwise. */
    public static String nameOf(String fileName) {
        String last = fileName == null ? "" : fileName.replaceAll(".*[/\\\\]", "").replaceAll("\\.[^.]{1,5}$", "");
        String plain = last.replaceAll("[\\p{Cntrl}]", "").strip();
        return plain.isEmpty() ? "Recording" : plain.substring(0, Math.min(LONGEST_NAME, plain.length()));
    }
}

package org.mellowclass.app.incoming;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Optional;

import org.mellowclass.app.disk.DiskRoom;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.media.PlainWav;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import org.springframework.stereotype.Component;

/** Keeps files that people send. They are looked at first, and refused at once if they hold no sound. */
@Component
public class IncomingFiles {

    private static final int LONGEST_NAME = 120;

    private final SoundStore store;
    private final Scratch scratch;
    private final SoundDecoder decoder;
    private final DiskRoom room;
    /** Each look is a process of its own. */
    private final Turnstile probes = new Turnstile(4);

    IncomingFiles(SoundStore store, Scratch scratch, SoundDecoder decoder, DiskRoom room) {
        this.store = store;
        this.scratch = scratch;
        this.decoder = decoder;
        this.room = room;
    }

    /** Moves a file to a path; what an upload knows to do with itself. */
    @FunctionalInterface
    public interface Upload {
        void moveTo(Path target) throws IOException;
    }

    /** The key of the file in the store; refuses one that cannot be used. */
    public String keep(Scratch.Owner owner, Upload upload) throws IOException {
        room.forFile(0);
        Path arriving = scratch.scratchFile(owner, ".upload");
        try {
            upload.moveTo(arriving);
            probes.pass(() -> look(owner, arriving));
            return store.put(arriving);
        } finally {
            Files.deleteIfExists(arriving);
        }
    }

    /** What a file that is kept says of itself. */
    public SoundFacts facts(Scratch.Owner owner, String key) throws IOException {
        try (Held file = store.holdWhole(key)) {
            return probes.pass(() -> look(owner, file.file()));
        }
    }

    /** Leaves the file as it came, or without the chunks for which it would be refused. */
    private SoundFacts look(Scratch.Owner owner, Path arriving) throws IOException {
        try {
            return decoder.probe(arriving);
        } catch (SoundRefused refused) {
            if (refused.reason() == SoundRefused.Reason.NOT_SOUND) {
                Optional<SoundFacts> around = aroundChunks(owner, arriving);
                if (around.isPresent()) {
                    return around.get();
                }
            }
            // nobody has recorded anything here
            throw Refusal.unfit(refused.reason() == SoundRefused.Reason.EMPTY ? "take.EMPTY_FILE" : "take." + refused.reason());
        }
    }

    private Optional<SoundFacts> aroundChunks(Scratch.Owner owner, Path arriving) throws IOException {
        Path plain = scratch.scratchFile(owner, ".wav");
        try {
            if (!PlainWav.write(arriving, plain)) {
                return Optional.empty();
            }
            SoundFacts facts = decoder.probe(plain);
            Files.move(plain, arriving, StandardCopyOption.REPLACE_EXISTING);
            return Optional.of(facts);
        } catch (SoundRefused stillNoSound) {
            return Optional.empty();
        } finally {
            Files.deleteIfExists(plain);
        }
    }

    /** A name for the sound, of what its owner called the file; never trusted otherwise. */
    public static String nameOf(String fileName) {
        String last = fileName == null ? "" : Fields.lastOfPath(fileName).replaceAll("\\.[^.]{1,5}$", "");
        String plain = last.replaceAll("[\\p{Cntrl}]", "").strip();
        return plain.isEmpty() ? "Recording" : plain.substring(0, Math.min(LONGEST_NAME, plain.length()));
    }
}

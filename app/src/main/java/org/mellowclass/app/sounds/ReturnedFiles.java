package org.mellowclass.app.sounds;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;

import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Start;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundRefused;
import org.springframework.stereotype.Service;

/** Takes that went out as files and came back treated: kept as they came, and decoded when a treatment is made of them. */
@Service
public class ReturnedFiles {

    private static final int READ = 4096;

    private final SoundMapper sounds;
    private final SoundStore store;
    private final SoundDecoder decoder;
    private final Scratch scratch;
    private final Clock clock;

    ReturnedFiles(SoundMapper sounds, SoundStore store, SoundDecoder decoder, Scratch scratch, Clock clock) {
        this.sounds = sounds;
        this.store = store;
        this.decoder = decoder;
        this.scratch = scratch;
        this.clock = clock;
    }

    /** Keeps that a file in the store is a take that came back, in the transaction of the caller; returns its id. */
    public long add(long takeId, String originalKey) {
        SoundMapper.Returned row = new SoundMapper.Returned();
        sounds.addReturned(row, takeId, originalKey, clock.instant());
        return row.getId();
    }

    /** A file that came back, at 48 kHz, as long as the take at most; empty if it is gone. Closing it takes away what was decoded. */
    Optional<SampleSource> open(long id, Take take) throws IOException {
        Optional<String> key = sounds.returned(id);
        if (key.isEmpty()) {
            return Optional.empty();
        }
        Path wav = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".wav");
        boolean whole = false;
        try (Held original = store.holdWhole(key.get());
             SampleSource decoded = decoder.openInto(wav, original.file(), decoder.probe(original.file()), Frames.RATE)) {
            float[][] block = new float[decoded.channels()][READ];
            while (decoded.read(block, 0, READ) > 0) {
                // reading writes the file
            }
            whole = true;
        } catch (SoundRefused refused) {
            throw new IOException(refused);
        } finally {
            if (!whole) {
                Files.deleteIfExists(wav);
            }
        }
        return Optional.of(new Start(WavReader.open(wav), take.frames()) {
            @Override
            public void close() throws IOException {
                super.close();
                Files.deleteIfExists(wav);
            }
        });
    }
}

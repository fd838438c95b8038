package org.mellowclass.app.takes;

import java.io.IOException;
import java.nio.file.Path;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.SoundPreparation.Measured;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Measures takes that are ready: what is clipped, what is odd about their sides, where the room is heard. */
@Service
public class TakeMeasuring {

    private final TakeMapper takes;
    private final SoundStore store;
    private final SoundDecoder decoder;
    private final SoundPreparation preparation;
    private final ObjectMapper json;
    private final TakeLanding landing;
    private final LiveEvents live;
    private final TransactionTemplate transaction;

    TakeMeasuring(TakeMapper takes, SoundStore store, SoundDecoder decoder, SoundPreparation preparation, ObjectMapper json,
                  TakeLanding landing, LiveEvents live, TransactionTemplate transaction) {
        this.takes = takes;
        this.store = store;
        this.decoder = decoder;
        this.preparation = preparation;
        this.json = json;
        this.landing = landing;
        this.live = live;
        this.transaction = transaction;
    }

    /**
     * Measures a ready take that has not been measured; nothing happens to any other. What has been measured is on the disk.
     */
    public void ensure(long takeId) throws IOException {
        Take take = takes.find(takeId).orElseThrow();
        if (!take.ready() || take.measured()) {
            return;
        }
        if (!soundIsWhole(take)) {
            throw new IOException("the sound of take " + takeId + " was cut off, and is made again");
        }
        store.sync(take.soundKey());
        Measured measured = measure(take);
        String clipped = json.writeValueAsString(measured.clipped());
        transaction.executeWithoutResult(status -> {
            if (takes.measured(takeId, clipped, measured.noticed(), measured.roomFrame()) == 1) {
                landing.measured(take.episodeId());
                live.episodeChanged(take.episodeId());
            }
        });
    }

    /** Whether nothing is missing of a ready take's file, as it may be after a power cut. */
    boolean soundIsWhole(Take take) {
        try (WavReader sound = WavReader.open(store.file(take.soundKey()))) {
            return sound.frames() == take.frames();
        } catch (IOException cutOff) {
            return false;
        }
    }

    private Measured measure(Take take) throws IOException {
        Path sound = store.file(take.soundKey());
        if (take.originalKey() == null) {
            return preparation.measure(WavReader.open(sound), Search.FULL_SCALE_AND_FLAT_TOPS, WavReader.open(sound));
        }
        Path original = store.file(take.originalKey());
        if (take.origin() == Take.Origin.RECORDED) {
            return preparation.measure(WavReader.open(original), Search.FULL_SCALE_AND_FLAT_TOPS, WavReader.open(sound));
        }
        try {
            SoundFacts facts = decoder.probe(original);
            return preparation.measure(decoder.open(original, facts), search(facts), WavReader.open(sound));
        } catch (SoundRefused refused) {
            throw new IOException("take " + take.id() + " was converted, and is refused now", refused);
        }
    }

    /** In lossy files only runs at full scale say that something was clipped. */
    public static Search search(SoundFacts facts) {
        return facts.lossless() ? Search.FULL_SCALE_AND_FLAT_TOPS : Search.FULL_SCALE_ONLY;
    }
}

package org.mellowclass.app.sounds;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.store.StoredJson;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Measures takes that are ready: what is clipped, what is odd about their sides, where the room is heard. */
@Service
public class TakeMeasuring {

    private final SoundMapper sounds;
    private final TakeRows takes;
    private final SoundStore store;
    private final SoundDecoder decoder;
    private final SoundPreparation preparation;
    private final Access access;
    private final ApplicationEventPublisher events;
    private final LiveEvents live;
    private final TransactionTemplate transaction;
    private final StoredJson<List<ClippedSpot>> spots;
    private final StoredJson<List<Span>> spans;

    TakeMeasuring(SoundMapper sounds, TakeRows takes, SoundStore store, SoundDecoder decoder, SoundPreparation preparation, Access access, ApplicationEventPublisher events,
                  LiveEvents live, TransactionTemplate transaction, ObjectMapper json) {
        this.sounds = sounds;
        this.takes = takes;
        this.store = store;
        this.decoder = decoder;
        this.preparation = preparation;
        this.access = access;
        this.events = events;
        this.live = live;
        this.transaction = transaction;
        this.spots = TakeSounds.spotsAsStored(json);
        this.spans = TakeSounds.spansAsStored(json);
    }

    /**
     * What was measured of a take, which is measured now if it has not been; nothing for one that is not ready. What has been
     * measured is on the disk.
     */
    public TakeFindings ensure(long takeId) throws IOException {
        Take take = takes.find(takeId).orElseThrow();
        Optional<SoundMapper.FindingsRow> known = sounds.findings(takeId);
        if (known.isPresent()) {
            return new TakeFindings(spots.read(known.get().clipped()), known.get().noticed(), known.get().roomFrame(), speech(take, known.get()));
        }
        if (!take.ready()) {
            return new TakeFindings(List.of(), StereoFinder.Noticed.NOTHING, null, null);
        }
        if (!soundIsWhole(take)) {
            throw new IOException("the sound of take " + takeId + " was cut off, and is made again");
        }
        store.settle(soundKey(take));
        TakeFindings measured = measure(take);
        transaction.executeWithoutResult(status -> {
            access.hold(take.episodeId());
            boolean stillThere = takes.lock(takeId).filter(Take::ready).isPresent();
            if (stillThere && sounds.found(takeId, spots.write(measured.clipped()), measured.noticed(), measured.roomFrame()) == 1) {
                sounds.speechFound(takeId, spans.write(measured.speech().pauses()), measured.speech().loudnessLufs());
                events.publishEvent(new SoundsChanged(take.episodeId()));
                live.episodeChanged(take.episodeId());
            }
        });
        return measured;
    }

    /** Who speaks when, which is measured now if an earlier version has not. */
    private TakeFindings.Speech speech(Take take, SoundMapper.FindingsRow known) throws IOException {
        if (known.pauses() != null) {
            return new TakeFindings.Speech(spans.read(known.pauses()), known.loudnessLufs());
        }
        if (!take.ready()) {
            return null;
        }
        try (Held held = store.hold(soundKey(take))) {
            TakeFindings.Speech measured = preparation.measureSpeech(WavReader.open(held.file()));
            sounds.speechFound(take.id(), spans.write(measured.pauses()), measured.loudnessLufs());
            return measured;
        }
    }

    /** Whether nothing is missing of a ready take's file, as it may be after a power cut. */
    boolean soundIsWhole(Take take) {
        try (Held held = store.hold(soundKey(take)); WavReader sound = WavReader.open(held.file())) {
            return sound.frames() == take.frames();
        } catch (IOException cutOff) {
            return false;
        }
    }

    private String soundKey(Take take) throws IOException {
        return sounds.of(take.id(), TreatmentCodec.AS_IT_IS).map(SoundMapper.Row::soundKey)
                .orElseThrow(() -> new IOException("take " + take.id() + " has no sound"));
    }

    private TakeFindings measure(Take take) throws IOException {
        String originalKey = sounds.original(take.id()).map(SoundMapper.Original::originalKey).orElse(null);
        try (Held sound = store.hold(soundKey(take)); Held original = store.hold(originalKey == null ? soundKey(take) : originalKey)) {
            return measure(take, sound.file(), original.file(), originalKey == null || take.origin() == Take.Origin.RECORDED);
        }
    }

    private TakeFindings measure(Take take, Path sound, Path original, boolean originalIsWav) throws IOException {
        if (originalIsWav) {
            return preparation.measure(WavReader.open(original), Search.FULL_SCALE_AND_FLAT_TOPS, WavReader.open(sound));
        }
        try {
            SoundFacts facts = decoder.probe(original);
            // the child process is started last: it would wait for ever if what is opened after it could not be
            try (WavReader atHouseRate = WavReader.open(sound)) {
                return preparation.measure(decoder.open(original, facts), search(facts), atHouseRate);
            }
        } catch (SoundRefused refused) {
            throw new IOException("take " + take.id() + " was converted, and is refused now", refused);
        }
    }

    /** In lossy files only runs at full scale say that something was clipped. */
    public static Search search(SoundFacts facts) {
        return facts.lossless() ? Search.FULL_SCALE_AND_FLAT_TOPS : Search.FULL_SCALE_ONLY;
    }
}

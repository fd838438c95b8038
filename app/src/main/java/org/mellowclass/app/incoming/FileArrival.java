package org.mellowclass.app.incoming;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;

import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.sounds.Arrival;
import org.mellowclass.app.sounds.SoundPreparation;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import org.springframework.stereotype.Component;

/** Makes the sound of files that people bring. */
@Component
class FileArrival implements Arrival {

    /** Encoders pad and trim their ends. */
    private static final long NOT_WORTH_TELLING = Frames.ofMillis(200);

    private final SoundDecoder decoder;
    private final SoundPreparation preparation;
    private final SoundStore store;

    FileArrival(SoundDecoder decoder, SoundPreparation preparation, SoundStore store) {
        this.decoder = decoder;
        this.preparation = preparation;
        this.store = store;
    }

    @Override
    public Set<Take.Origin> origins() {
        return Set.of(Take.Origin.BROUGHT_IN);
    }

    @Override
    public Made make(Take take, String originalKey, Reporting.Listener permille, Path wav, Path skyline) throws IOException, SoundRefused {
        try (Held original = store.holdWhole(originalKey)) {
            SoundFacts facts = decoder.probe(original.file());
            SoundPreparation.Converted sound = preparation.convert(original.file(), facts, permille, wav, skyline);
            return new Made(originalKey, sound.channels(), sound.frames(), 0,
                    facts.counted() ? cutOff(sound.frames(), sound.expected()) : List.of(), sound.came());
        }
    }

    /** What a file promises at its end and does not hold, since it was cut off on its way. */
    private static List<Span> cutOff(long frames, long stated) {
        return stated - frames < NOT_WORTH_TELLING ? List.of() : List.of(new Span(frames, stated));
    }

    @Override
    public boolean canBeMadeAgain() {
        return true;
    }
}

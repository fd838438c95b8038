package org.mellowclass.app.recording;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.sounds.Arrival;
import org.mellowclass.app.sounds.AsItCame;
import org.mellowclass.app.sounds.SoundPreparation;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.Tap;
import org.mellowclass.core.sound.WavWriter;
import org.springframework.stereotype.Component;

/** Makes the sound of what was spoken, of the chunks that came. They are gone once it is ready, and the file they make is the original. */
@Component
class SpokenArrival implements Arrival {

    private final RecordingMapper recordings;
    private final SoundPreparation preparation;
    private final SoundStore store;
    private final Scratch scratch;

    SpokenArrival(RecordingMapper recordings, SoundPreparation preparation, SoundStore store, Scratch scratch) {
        this.recordings = recordings;
        this.preparation = preparation;
        this.store = store;
        this.scratch = scratch;
    }

    @Override
    public Set<Take.Origin> origins() {
        return Set.of(Take.Origin.RECORDED, Take.Origin.NOTE);
    }

    @Override
    public Made make(Take take, String originalKey, Reporting.Listener permille, Path wav, Path skyline) throws IOException {
        Session session = recordings.of(take.id()).orElseThrow();
        ChunkSound chunks = new ChunkSound(recordings, session);
        Path original = scratch.scratchFile(Scratch.Owner.episode(take.episodeId()), ".wav");
        try {
            long frames;
            try (WavWriter asItCame = WavWriter.create(original, chunks.channels(), chunks.sampleRate(), SampleFormat.PCM_16)) {
                frames = preparation.convert(new Tap(chunks, asItCame), chunks.frames(),
                        read -> permille.read(1000 * read / Math.max(1, chunks.frames())), wav, skyline);
            }
            return new Made(store.put(original), chunks.channels(), frames, Frames.converted(session.leadSourceFrames(), session.sampleRate()),
                    chunks.missing().stream().map(span -> SoundPreparation.atHouseRate(span, session.sampleRate())).toList(), AsItCame.WHOLE);
        } finally {
            Files.deleteIfExists(original);
        }
    }

    @Override
    public void kept(Take take) {
        recordings.deleteChunks(take.id());
        recordings.closed(take.id());
    }

    @Override
    public void refused(Take take) {
        recordings.deleteChunks(take.id());
    }

    @Override
    public List<Long> flags(Take take) {
        return recordings.of(take.id()).stream().flatMap(session -> recordings.flags(take.id()).stream()
                .map(frame -> Frames.converted(frame, session.sampleRate()))).toList();
    }

    @Override
    public boolean canBeMadeAgain() {
        return false;
    }
}

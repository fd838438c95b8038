package org.mellowclass.app.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.store.SkylineFile;
import org.mellowclass.app.store.NamedSounds;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.ClippingFinder;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.Skyline;
import org.mellowclass.core.measure.SpeechLevels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Tap;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Makes a take ready: its sound at 48 kHz, its skyline and its clipped spots, in one pass over what came in. */
@Component
class TakeConversion {

    static final String KIND = "take";

    private static final String SPOKEN_IS_KEPT = "SPOKEN_IS_KEPT";

    private static final Logger LOG = LoggerFactory.getLogger(TakeConversion.class);

    private final TakeMapper takes;
    private final SoundStore store;
    private final SoundDecoder decoder;
    private final Jobs jobs;
    private final ObjectMapper json;
    private final TakeLanding landing;
    private final TransactionTemplate transaction;

    TakeConversion(TakeMapper takes, SoundStore store, SoundDecoder decoder, Jobs jobs, ObjectMapper json,
                   TakeLanding landing, TransactionTemplate transaction) {
        this.takes = takes;
        this.store = store;
        this.decoder = decoder;
        this.jobs = jobs;
        this.json = json;
        this.landing = landing;
        this.transaction = transaction;
    }

    @Configuration
    static class Schedule {
        @Bean
        OneTimeTask<Void> takeConversionJob(TakeConversion conversion) {
            return Jobs.kind(KIND, conversion::run, conversion::giveUp);
        }

        @Bean
        NamedSounds takeSounds(TakeMapper takes) {
            return takes::soundKeys;
        }
    }

    void run(long takeId) throws IOException {
        Take take = takes.find(takeId).orElseThrow();
        if (take.state() != Take.State.ARRIVED) {
            return;
        }
        Path original = store.temporaryFile(".wav");
        Path wav = store.temporaryFile(".wav");
        Path skyline = store.temporaryFile(".skyline");
        try {
            Made made = take.origin() == Take.Origin.RECORDED
                    ? fromChunks(take, original, wav, skyline) : fromFile(take, wav, skyline);
            if (made.frames == 0) {
                refuse(take, SoundRefused.Reason.EMPTY);
                return;
            }
            String originalKey = take.originalKey() != null ? take.originalKey() : store.put(original);
            Take ready = new Take(take.id(), take.episodeId(), take.authorId(), take.name(), take.trackName(),
                    take.origin(), Take.State.READY, null, made.rate, made.channels, originalKey, store.put(wav),
                    store.put(skyline), made.channels, made.frames, json.writeValueAsString(made.clipped), made.roomFrame, take.lastSignAt(),
                    take.sourceFrames(), json.writeValueAsString(made.missing), take.createdAt());
            transaction.executeWithoutResult(status -> {
                if (takes.ready(ready) == 1) {
                    takes.deleteChunks(takeId);
                    landing.land(ready);
                }
            });
        } catch (SoundRefused refused) {
            refuse(take, refused.reason());
        } catch (IOException failed) {
            if (failed.getCause() instanceof SoundRefused refused) {
                refuse(take, refused.reason());
            } else {
                throw failed;
            }
        } finally {
            jobs.ended(KIND, takeId);
            Files.deleteIfExists(original);
            Files.deleteIfExists(wav);
            Files.deleteIfExists(skyline);
        }
    }

    /** What was spoken stays in its chunks, whatever went wrong; a file is still with the one who brought it. */
    private void giveUp(long takeId) {
        Take take = takes.find(takeId).orElseThrow();
        if (take.origin() == Take.Origin.RECORDED) {
            takes.failed(takeId, SPOKEN_IS_KEPT);
            return;
        }
        try {
            refuse(take, SoundRefused.Reason.BROKEN);
        } catch (IOException e) {
            LOG.error("the file of take {} could not be deleted", takeId, e);
        }
    }

    private record Made(int rate, int channels, long frames, List<ClippedSpot> clipped, Long roomFrame, List<Span> missing) {
    }

    private Made fromChunks(Take take, Path original, Path wav, Path skyline) throws IOException {
        ChunkSound chunks = new ChunkSound(takes, take);
        try (WavWriter asItCame = WavWriter.create(original, chunks.channels(), chunks.sampleRate(), SampleFormat.PCM_16)) {
            return convert(take, new Tap(chunks, asItCame), Search.FULL_SCALE_AND_FLAT_TOPS, chunks.frames(), chunks.missing(),
                    wav, skyline);
        }
    }

    private Made fromFile(Take take, Path wav, Path skyline) throws IOException, SoundRefused {
        Path file = store.file(take.originalKey());
        SoundFacts facts = decoder.probe(file);
        long expected = (long) (facts.seconds() * facts.sampleRate());
        Search search = facts.lossless() ? Search.FULL_SCALE_AND_FLAT_TOPS : Search.FULL_SCALE_ONLY;
        return convert(take, decoder.open(file, facts), search, expected, List.of(), wav, skyline);
    }

    private Made convert(Take take, SampleSource incoming, Search search, long expectedFrames, List<Span> missing,
                         Path wav, Path skylineFile) throws IOException {
        ClippingFinder clipping = new ClippingFinder(incoming.channels(), incoming.sampleRate(), search);
        Skyline skyline = new Skyline(incoming.channels());
        LoudnessMeter loudness = new LoudnessMeter(incoming.channels());
        SpeechLevels levels = new SpeechLevels(incoming.channels());
        long frames;
        SampleSource reported = new Reporting(new Tap(incoming, clipping), expectedFrames,
                read -> jobs.progress(KIND, take.id(), read, expectedFrames));
        try (SampleSource converted = Resampler.to(Frames.RATE, reported);
             WavWriter writer = WavWriter.create(wav, incoming.channels(), Frames.RATE, SampleFormat.FLOAT_32)) {
            frames = SampleSink.drain(converted, writer, skyline, loudness, levels);
        }
        skyline.finish();
        SkylineFile.write(skyline, skylineFile);
        return new Made(incoming.sampleRate(), incoming.channels(), frames,
                clipping.spots().stream().map(spot -> atHouseRate(spot, incoming.sampleRate())).toList(),
                levels.room(loudness.integrated()).map(Span::startFrame).orElse(null),
                missing.stream().map(span -> atHouseRate(span, incoming.sampleRate())).toList());
    }

    private static ClippedSpot atHouseRate(ClippedSpot spot, int rate) {
        Span span = atHouseRate(new Span(spot.startFrame(), spot.endFrame()), rate);
        return new ClippedSpot(span.startFrame(), span.endFrame(), spot.runs());
    }

    private static Span atHouseRate(Span span, int rate) {
        return new Span(span.startFrame() * Frames.RATE / rate, Frames.converted(span.endFrame(), rate));
    }

    /** Nothing of a refused file is kept but its row, which says why. */
    private void refuse(Take take, SoundRefused.Reason reason) throws IOException {
        LOG.info("take {} refused: {}", take.id(), reason);
        takes.failed(take.id(), reason.name());
        takes.deleteChunks(take.id());
        if (take.originalKey() != null) {
            store.delete(take.originalKey());
        }
    }
}

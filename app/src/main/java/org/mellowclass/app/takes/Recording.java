package org.mellowclass.app.takes;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.NotFound;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.takes.TakeMapper.ChunkFacts;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.media.SoundDecoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Takes sound from a microphone: numbered chunks that are stored as they come, so that what was said is safe long before
 * the recording ends.
 */
@Service
@Transactional
public class Recording {

    private static final int LOWEST_RATE = 8_000;
    private static final int HIGHEST_RATE = 192_000;
    /** Recording is one voice on one channel. */
    private static final int CHANNELS = 1;
    private static final int MOST_CHUNK_SECONDS = 5;

    private final TakeMapper takes;
    private final Access access;
    private final Jobs jobs;
    private final Clock clock;

    Recording(TakeMapper takes, Access access, Jobs jobs, Clock clock) {
        this.takes = takes;
        this.access = access;
        this.jobs = jobs;
        this.clock = clock;
    }

    /** Begins a take that will land on the track of that name, and returns its id. */
    public long begin(Person viewer, long episodeId, String trackName, int sampleRate) {
        Episode episode = access.ownEpisode(viewer, episodeId);
        if (sampleRate < LOWEST_RATE || sampleRate > HIGHEST_RATE) {
            throw Refusal.unfit("take.RATE", sampleRate);
        }
        int number = takes.count(episode.id(), Take.Origin.RECORDED) + 1;
        TakeMapper.NewTake take = new TakeMapper.NewTake(episode.id(), viewer.id(), "Take " + number,
                TrackNames.checked(trackName), Take.Origin.RECORDED, Take.State.RECORDING, sampleRate, CHANNELS, null,
                clock.instant());
        takes.add(take);
        return take.id;
    }

    /**
     * Stores a chunk; sending it again is harmless.
     *
     * @param number     counts from 0
     * @param firstFrame where it starts, in frames of the take's source rate
     * @param pcm        16-bit samples, little-endian
     */
    public void chunk(Person viewer, long takeId, int number, long firstFrame, byte[] pcm) {
        Take take = ownTake(viewer, takeId);
        if (take.state() != Take.State.RECORDING) {
            throw Refusal.conflict("take.ENDED");
        }
        boolean tooLong = pcm.length > 2 * MOST_CHUNK_SECONDS * take.sourceRate()
                || firstFrame > (long) SoundDecoder.MOST_SECONDS * take.sourceRate();
        if (number < 0 || firstFrame < 0 || pcm.length == 0 || pcm.length % 2 != 0 || tooLong) {
            throw Refusal.unfit("take.CHUNK", number);
        }
        takes.addChunk(takeId, number, firstFrame, pcm.length / 2, pcm);
    }

    /**
     * Ends a take of so many chunks. If some are missing, their numbers are returned and nothing has changed: send them and
     * end again. Otherwise the take is made ready in the background.
     */
    public List<Integer> end(Person viewer, long takeId, int chunkCount) {
        Take take = ownTake(viewer, takeId);
        if (take.state() != Take.State.RECORDING) {
            return List.of();
        }
        if (chunkCount <= 0) {
            takes.failed(takeId, "EMPTY");
            throw Refusal.unfit("take.EMPTY");
        }
        List<Integer> missing = missing(takes.chunks(takeId), chunkCount);
        if (missing.isEmpty() && takes.arrived(takeId) == 1) {
            jobs.ask(TakeConversion.KIND, takeId);
        }
        return missing;
    }

    private static List<Integer> missing(List<ChunkFacts> chunks, int wanted) {
        List<Integer> missing = new ArrayList<>(IntStream.range(0, wanted).boxed().toList());
        missing.removeAll(chunks.stream().map(ChunkFacts::number).toList());
        return missing;
    }

    private Take ownTake(Person viewer, long takeId) {
        Take take = takes.lock(takeId).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, take.episodeId());
        return take;
    }
}

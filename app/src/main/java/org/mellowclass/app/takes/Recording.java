package org.mellowclass.app.takes;

import java.time.Clock;
import java.util.BitSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.zip.CRC32;

import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.takes.TakeMapper.ChunkFacts;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.media.SoundDecoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Takes sound from a microphone: numbered chunks that are stored as they come, so that what was said is safe long before
 * the recording ends. A recording is begun by somebody who is signed in; from then on its upload key alone lets add to it,
 * so that it can be finished when its owner has signed out and somebody else sits at the laptop.
 */
@Service
@Transactional
public class Recording {

    private static final int LOWEST_RATE = 8_000;
    private static final int HIGHEST_RATE = 192_000;
    /** Recording is one voice on one channel. */
    private static final int CHANNELS = 1;
    private static final int MOST_CHUNK_SECONDS = 5;
    /** No chunk of any rate is larger. */
    static final int MOST_CHUNK_BYTES = 2 * MOST_CHUNK_SECONDS * HIGHEST_RATE;

    private static final int MOST_LEAD_SECONDS = 3;
    private static final int LONGEST_MICROPHONE = 500;
    private static final int LONGEST_GUEST = 80;
    private static final int MOST_FLAGS = 200;
    private static final int MOST_MISSING_TOLD = 1000;

    private final TakeMapper takes;
    private final Access access;
    private final Jobs jobs;
    private final Clock clock;
    private final LiveEvents live;

    Recording(TakeMapper takes, Access access, Jobs jobs, Clock clock, LiveEvents live) {
        this.takes = takes;
        this.access = access;
        this.jobs = jobs;
        this.clock = clock;
        this.live = live;
    }

    /**
     * A recording that has begun.
     *
     * @param uploadKey lets add to this take alone, until it has ended
     */
    public record Begun(long takeId, String uploadKey) {
    }

    /**
     * What is known of a recording when it begins.
     *
     * @param leadFrames how much room from before the first word comes first, at the sample rate
     * @param placeFrame where it will land, at 48 kHz; null for behind everything on its track
     * @param lineId     the line of the script that is spoken, or null
     * @param personIds  the students whose voices are in it; empty for the one who is signed in
     * @param guestIds   guests whose voices are in it
     * @param microphone what the browser granted, as JSON
     * @param together   the word on which another laptop begins at the same time, or null
     */
    public record Start(String trackName, int sampleRate, long leadFrames, Long placeFrame, Long lineId, Set<Long> personIds,
                        Set<Long> guestIds, String microphone, String together) {

        public Start {
            personIds = personIds == null ? Set.of() : Set.copyOf(personIds);
            guestIds = guestIds == null ? Set.of() : Set.copyOf(guestIds);
        }

        /** On a track of that name, behind everything there, by the one who is signed in. */
        public static Start on(String trackName, int sampleRate) {
            return new Start(trackName, sampleRate, 0, null, null, Set.of(), Set.of(), null, null);
        }
    }

    /** Begins a take. */
    public Begun begin(Person viewer, long episodeId, Start start) {
        int sampleRate = start.sampleRate;
        Episode episode = access.ownEpisode(viewer, episodeId);
        if (sampleRate < LOWEST_RATE || sampleRate > HIGHEST_RATE) {
            throw Refusal.unfit("take.RATE", sampleRate);
        }
        int number = takes.count(episode.id(), Take.Origin.RECORDED) + 1;
        String uploadKey = RandomKey.next();
        TakeMapper.NewTake take = new TakeMapper.NewTake(episode.id(), viewer.id(), "Take " + number,
                Fields.required(start.trackName, Take.LONGEST_TRACK_NAME, "take.TRACK_NAME"), Take.Origin.RECORDED, Take.State.RECORDING, sampleRate, CHANNELS, null,
                uploadKey, clock.instant());
        take.leadSourceFrames = Math.max(0, Math.min(start.leadFrames, (long) MOST_LEAD_SECONDS * sampleRate));
        take.placeFrame = start.placeFrame == null || start.placeFrame < 0 ? null : start.placeFrame;
        take.lineId = start.lineId != null && takes.linesOfEpisode(start.lineId, episodeId) == 1 ? start.lineId : null;
        take.microphone = start.microphone == null || start.microphone.length() > LONGEST_MICROPHONE ? null : start.microphone;
        take.together = !RandomKey.is(start.together) ? null : start.together;
        takes.add(take);
        addVoices(viewer, episode, take.id, start);
        live.episodeChanged(episode.id());
        return new Begun(take.id, uploadKey);
    }

    /** Voices of the crew and its guests only; whoever is signed in if nobody is named. */
    private void addVoices(Person viewer, Episode episode, long takeId, Start start) {
        access.crewOf(episode).stream().map(Person::id).filter(start.personIds::contains).forEach(id -> takes.addVoice(takeId, id, null));
        takes.guests(episode.crewId()).stream().map(Guest::id).filter(start.guestIds::contains).forEach(id -> takes.addVoice(takeId, null, id));
        if (start.personIds.isEmpty() && start.guestIds.isEmpty()) {
            takes.addVoice(takeId, viewer.id(), null);
        }
    }

    /** Somebody who speaks for a crew and is none of its students. */
    public record Guest(long id, String name) {
    }

    /** The guests of a crew, whose consent has been recorded. */
    @Transactional(readOnly = true)
    public List<Guest> guests(Person viewer, long episodeId) {
        return takes.guests(access.episode(viewer, episodeId).crewId());
    }

    /** Remembers a guest of the crew, with what they have agreed to. */
    public List<Guest> addGuest(Person viewer, long episodeId, String name, String extent) {
        Episode episode = access.ownEpisode(viewer, episodeId);
        if (!Set.of("NONE", "SCHOOL", "PUBLIC").contains(extent == null ? "" : extent)) {
            throw Refusal.unfit("take.GUEST_CONSENT");
        }
        takes.addGuest(episode.crewId(), Fields.required(name, LONGEST_GUEST, "take.GUEST_NAME"), extent, viewer.id(), clock.instant());
        return takes.guests(episode.crewId());
    }

    /** Flags a moment while somebody speaks, in frames of the source rate from the take's start. */
    public void flag(String uploadKey, long sourceFrame) {
        Take take = byKey(uploadKey);
        if (sourceFrame < 0 || sourceFrame > mostFrames(take)) {
            throw Refusal.unfit("take.CHUNK", 0);
        }
        if (takes.flags(take.id()).size() < MOST_FLAGS) {
            takes.addFlag(take.id(), sourceFrame);
        }
    }

    /**
     * Stores a chunk; sending it again is harmless.
     *
     * @param number     counts from 0
     * @param firstFrame where it starts, in frames of the take's source rate
     * @param crc32      of the samples, so that what was damaged on its way is sent again
     * @param pcm        16-bit samples, little-endian
     */
    public void chunk(String uploadKey, int number, long firstFrame, long crc32, byte[] pcm) {
        Take take = byKey(uploadKey);
        if (take.state() != Take.State.RECORDING) {
            throw Refusal.conflict("take.ENDED");
        }
        boolean tooLong = pcm.length > 2 * MOST_CHUNK_SECONDS * take.sourceRate() || firstFrame > mostFrames(take);
        if (number < 0 || firstFrame < 0 || pcm.length == 0 || pcm.length % 2 != 0 || tooLong) {
            throw Refusal.unfit("take.CHUNK", number);
        }
        CRC32 crc = new CRC32();
        crc.update(pcm);
        if (crc.getValue() != crc32) {
            throw Refusal.unfit("take.DAMAGED", number);
        }
        if (takes.addChunk(take.id(), number, firstFrame, pcm.length / 2, pcm) == 1) {
            RecentPeaks before = RecentPeaks.of(takes.recentPeaks(take.id()));
            RecentPeaks now = before.with(Pcm16.peak(pcm));
            takes.heard(take.id(), clock.instant(), now.text());
            if (!now.word().equals(before.word())) {
                live.episodeChanged(take.episodeId());
            }
        } else {
            takes.sign(take.id(), clock.instant());
        }
    }

    /** A sign of life from a recording that has nothing to send. */
    public void sign(String uploadKey) {
        takes.sign(byKey(uploadKey).id(), clock.instant());
    }

    /**
     * Ends a take of so many chunks and frames. If some chunks are missing, their numbers are returned and nothing has
     * changed: send them and end again. If they are lost for good, the take is ended all the same, and says where something
     * is missing. It is then made ready in the background.
     *
     * @param evenWithGaps whether missing chunks cannot come any more
     */
    public List<Integer> end(String uploadKey, int chunkCount, long frames, boolean evenWithGaps) {
        Take take = byKey(uploadKey);
        if (take.state() != Take.State.RECORDING) {
            return List.of();
        }
        List<ChunkFacts> chunks = takes.chunks(take.id());
        if (chunkCount <= 0 || chunks.isEmpty() && evenWithGaps) {
            takes.failed(take.id(), "EMPTY");
            return List.of();
        }
        List<Integer> missing = missing(chunks, chunkCount);
        if (missing.isEmpty() || evenWithGaps) {
            arrive(take, chunks, Math.min(frames, mostFrames(take)));
            return List.of();
        }
        return missing;
    }

    /** Ends a recording that was interrupted, with what has come of it; any other take is left as it is. Returns its episode. */
    public long complete(Person viewer, long takeId) {
        Take take = takes.lock(takeId).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, take.episodeId());
        if (take.recording(clock.instant())) {
            throw Refusal.conflict("take.STILL_RECORDING");
        }
        if (take.state() != Take.State.RECORDING) {
            return take.episodeId();
        }
        List<ChunkFacts> chunks = takes.chunks(takeId);
        if (chunks.isEmpty()) {
            takes.failed(takeId, "EMPTY");
        } else {
            arrive(take, chunks, 0);
        }
        return take.episodeId();
    }

    private void arrive(Take take, List<ChunkFacts> chunks, long frames) {
        long end = chunks.stream().mapToLong(ChunkFacts::endFrame).max().orElse(0);
        if (takes.arrived(take.id(), Math.max(frames, end)) == 1) {
            jobs.ask(TakeConversion.KIND, take.id());
            live.episodeChanged(take.episodeId());
        }
    }

    private static long mostFrames(Take take) {
        return (long) SoundDecoder.MOST_SECONDS * take.sourceRate();
    }

    private static List<Integer> missing(List<ChunkFacts> chunks, int wanted) {
        BitSet there = new BitSet();
        chunks.forEach(chunk -> there.set(chunk.number()));
        return IntStream.range(0, Math.min(wanted, MOST_MISSING_TOLD + there.cardinality())).filter(number -> !there.get(number))
                .boxed().limit(MOST_MISSING_TOLD).toList();
    }

    private Take byKey(String uploadKey) {
        return takes.lockByUploadKey(uploadKey).orElseThrow(NotFound::new);
    }
}

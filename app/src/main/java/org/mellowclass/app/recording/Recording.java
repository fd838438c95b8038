package org.mellowclass.app.recording;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.zip.CRC32;

import org.mellowclass.app.disk.DiskRoom;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.recording.RecordingMapper.ChunkFacts;
import org.mellowclass.app.sounds.SoundMaking;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.media.SoundDecoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
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
    private static final int MOST_CHUNK_SECONDS = 5;
    /** One each tenth of a second for three hours. */
    private static final int MOST_CHUNKS = 108_000;
    /** No chunk of any rate is larger. */
    static final int MOST_CHUNK_BYTES = 2 * MOST_CHUNK_SECONDS * HIGHEST_RATE;

    /** The page ends a note then: nobody wants to be told more at once. */
    public static final int MOST_NOTE_SECONDS = 180;
    private static final int MOST_LEAD_SECONDS = 3;
    private static final int SLACK_SECONDS = 60;
    private static final int LONGEST_MICROPHONE = 500;
    private static final int MOST_FLAGS = 200;
    /** How long a recording may be silent before it counts as interrupted. */
    private static final Duration LONGEST_SILENCE = Duration.ofMinutes(2);
    private static final int MOST_MISSING_TOLD = 1000;

    private final RecordingMapper recordings;
    private final TakeRows takes;
    private final SoundMaking making;
    private final Voices voices;
    private final Access access;
    private final DiskRoom room;
    private final Clock clock;
    private final LiveEvents live;

    Recording(RecordingMapper recordings, TakeRows takes, SoundMaking making, Voices voices, Access access, DiskRoom room, Clock clock, LiveEvents live) {
        this.recordings = recordings;
        this.takes = takes;
        this.making = making;
        this.voices = voices;
        this.access = access;
        this.room = room;
        this.clock = clock;
        this.live = live;
    }

    /**
     * A recording that has begun.
     *
     * @param uploadKey lets add to this take alone, until it has ended
     * @param seal      the key with which the page seals what it keeps, see {@link Seal}; never kept on the laptop
     */
    public record Begun(long takeId, String uploadKey, byte[] seal) {
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
     * @param restOf     a take of the same episode whose last part came too late, of which this is the rest; or null
     * @param together   the word on which another laptop begins at the same time, or null
     */
    public record Start(String trackName, int sampleRate, long leadFrames, Long placeFrame, Long lineId, Set<Long> personIds,
                        Set<Long> guestIds, String microphone, String together, Long restOf) {

        public Start {
            personIds = personIds == null ? Set.of() : Set.copyOf(personIds);
            guestIds = guestIds == null ? Set.of() : Set.copyOf(guestIds);
        }

        /** On a track of that name, behind everything there, by the one who is signed in. */
        public static Start on(String trackName, int sampleRate) {
            return new Start(trackName, sampleRate, 0, null, null, Set.of(), Set.of(), null, null, null);
        }
    }

    /** Begins a take. */
    public Begun begin(Person viewer, long episodeId, Start start) {
        int sampleRate = start.sampleRate;
        Episode episode = access.ownEpisode(viewer, episodeId);
        requireRate(sampleRate);
        if (start.restOf != null && takes.find(start.restOf).filter(take -> take.episodeId() == episodeId && take.state() == Take.State.ERASED).isPresent()) {
            throw Refusal.conflict("take.ERASED");
        }
        if (start.restOf == null) {
            // what was spoken already is taken, whatever the share
            requireRoom(episode);
        }
        int number = takes.count(episode.id(), Take.Origin.RECORDED) + 1;
        Optional<Session> before = Optional.ofNullable(start.restOf).flatMap(takes::find).filter(take -> take.episodeId() == episodeId)
                .flatMap(take -> recordings.of(take.id()));
        // what is left of a take lies on the laptop sealed as the take was
        byte[] seal = before.map(Session::seal).orElseGet(Seal::newKey);
        Long line = start.lineId != null && takes.isLineOf(start.lineId, episodeId) ? start.lineId : null;
        long take = takes.add(new TakeRows.NewTake(episode.id(), viewer.id(), "Take " + number,
                trackName(start, episodeId), Take.Origin.RECORDED, Take.State.RECORDING,
                Take.Placing.BEHIND, start.placeFrame == null || start.placeFrame < 0 ? null : Fields.frame(start.placeFrame), line));
        long lead = Math.max(0, Math.min(start.leadFrames, (long) MOST_LEAD_SECONDS * sampleRate));
        Begun begun = begun(take, sampleRate, lead, RandomKey.is(start.together) ? start.together : null, start.microphone, seal,
                before.map(Session::begunAt).orElse(clock.instant()));
        voices.add(viewer, episode, take, start.personIds, start.guestIds);
        live.episodeChanged(episode.id());
        return begun;
    }

    /**
     * Begins what is spoken in a note on an episode, by somebody who has been let through. It is recorded as takes are, and is none of the
     * crew's.
     */
    public Begun beginNote(Person author, long episodeId, int sampleRate, String microphone) {
        requireRate(sampleRate);
        try {
            room.forRecording();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        long take = takes.add(new TakeRows.NewTake(episodeId, author.id(), "Note", "Note", Take.Origin.NOTE, Take.State.RECORDING, Take.Placing.LIST, null, null));
        return begun(take, sampleRate, 0, null, microphone, Seal.newKey(), clock.instant());
    }

    private Begun begun(long take, int sampleRate, long lead, String together, String microphone, byte[] seal, Instant begunAt) {
        String uploadKey = RandomKey.next();
        recordings.add(take, uploadKey, sampleRate, lead, together, microphone == null || microphone.length() > LONGEST_MICROPHONE ? null : microphone, seal,
                clock.instant(), begunAt);
        return new Begun(take, uploadKey, seal);
    }

    private static void requireRate(int sampleRate) {
        if (sampleRate < LOWEST_RATE || sampleRate > HIGHEST_RATE) {
            throw Refusal.unfit("take.RATE", sampleRate);
        }
    }

    /** The rest of a take goes where the take went: its laptop keeps no name. */
    private String trackName(Start start, long episodeId) {
        return Optional.ofNullable(start.restOf).flatMap(takes::find).filter(take -> take.episodeId() == episodeId).map(Take::trackName)
                .orElseGet(() -> Fields.required(start.trackName, Take.LONGEST_TRACK_NAME, "take.TRACK_NAME"));
    }

    private void requireRoom(Episode episode) {
        try {
            room.forRecording();
            room.shareOfCrew(episode.id(), episode.classId(), 0);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Flags a moment while somebody speaks, in frames of the source rate from the take's start. */
    public void flag(String uploadKey, long sourceFrame) {
        Session session = byKey(uploadKey);
        if (sourceFrame < 0 || sourceFrame > mostFrames(session, SoundDecoder.MOST_SECONDS)) {
            throw Refusal.unfit("take.CHUNK", 0);
        }
        if (recordings.flags(session.takeId()).size() < MOST_FLAGS) {
            recordings.addFlag(session.takeId(), sourceFrame);
        }
    }

    /**
     * Stores a chunk; sending it again is harmless.
     *
     * @param number     counts from 0
     * @param firstFrame where it starts, in frames of the take's source rate
     * @param crc32      of what is sent, so that what was damaged on its way is sent again
     * @param sent       16-bit samples, little-endian
     * @param sealed     whether they are sealed with the take's {@link Seal}
     */
    public void chunk(String uploadKey, int number, long firstFrame, long crc32, byte[] sent, boolean sealed) {
        Session session = byKey(uploadKey);
        Take take = takes.findWithNotes(session.takeId()).orElseThrow();
        if (take.state() != Take.State.RECORDING) {
            throw Refusal.conflict("take.ENDED");
        }
        CRC32 crc = new CRC32();
        crc.update(sent);
        if (crc.getValue() != crc32) {
            throw Refusal.unfit("take.DAMAGED", number);
        }
        byte[] pcm = sealed ? opened(session, number, sent) : sent;
        boolean tooLong = pcm.length > 2 * MOST_CHUNK_SECONDS * session.sampleRate() || firstFrame > mostFrames(session, mostSeconds(take)) - pcm.length / 2;
        if (number < 0 || number >= MOST_CHUNKS || firstFrame < 0 || pcm.length == 0 || pcm.length % 2 != 0 || tooLong) {
            throw Refusal.unfit("take.CHUNK", number);
        }
        if (recordings.addChunk(take.id(), number, firstFrame, pcm.length / 2, pcm) == 1) {
            RecentPeaks before = RecentPeaks.of(session.recentPeaks());
            RecentPeaks now = before.with(Pcm16.peak(pcm));
            recordings.heard(take.id(), clock.instant(), now.text());
            if (!now.word().equals(before.word())) {
                live.episodeChanged(take.episodeId());
            }
        } else {
            recordings.sign(take.id(), clock.instant());
        }
    }

    private static byte[] opened(Session session, int number, byte[] sent) {
        return Optional.ofNullable(session.seal()).flatMap(key -> Seal.open(key, sent)).orElseThrow(() -> Refusal.unfit("take.CHUNK", number));
    }

    /** A sign of life from a recording that has nothing to send. */
    public void sign(String uploadKey) {
        recordings.sign(byKey(uploadKey).takeId(), clock.instant());
    }

    /**
     * Ends a take of so many chunks and frames. If some chunks are missing, their numbers are returned and nothing has
     * changed: send them and end again. If they are lost for good, the take is ended all the same, and says where something
     * is missing. It is then made ready in the background.
     *
     * @param evenWithGaps whether missing chunks cannot come any more
     */
    public List<Integer> end(String uploadKey, int chunkCount, long frames, boolean evenWithGaps) {
        Session session = byKey(uploadKey);
        Take take = takes.findWithNotes(session.takeId()).orElseThrow();
        if (take.state() != Take.State.RECORDING) {
            return List.of();
        }
        List<ChunkFacts> chunks = recordings.chunks(take.id());
        if (chunkCount <= 0 || chunks.isEmpty() && evenWithGaps) {
            takes.failed(take.id(), "EMPTY");
            return List.of();
        }
        List<Integer> missing = missing(chunks, chunkCount);
        if (missing.isEmpty() || evenWithGaps) {
            arrive(take, chunks, Math.min(frames, mostFrames(session, mostSeconds(take))));
            return List.of();
        }
        return missing;
    }

    /** Ends a recording that was interrupted, with what has come of it; any other take is left as it is. Returns its episode. */
    public long complete(Person viewer, long takeId) {
        Take take = takes.lock(takeId).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, take.episodeId());
        complete(take);
        return take.episodeId();
    }

    /** As {@link #complete(Person, long)}, of what was spoken in a note, for somebody who has been let through. */
    public void completeNote(long takeId) {
        complete(takes.lockWithNotes(takeId).orElseThrow(NotFound::new));
    }

    private void complete(Take take) {
        if (isLive(take, recordings.of(take.id()).orElse(null))) {
            throw Refusal.conflict("take.STILL_RECORDING");
        }
        if (take.state() == Take.State.RECORDING) {
            List<ChunkFacts> chunks = recordings.chunks(take.id());
            if (chunks.isEmpty()) {
                takes.failed(take.id(), "EMPTY");
            } else {
                arrive(take, chunks, 0);
            }
        }
    }

    private void arrive(Take take, List<ChunkFacts> chunks, long frames) {
        long end = chunks.stream().mapToLong(ChunkFacts::endFrame).max().orElse(0);
        long arrived = chunks.stream().mapToLong(ChunkFacts::frames).sum();
        if (takes.arrived(take.id())) {
            // what is told to be missing at the end is no longer than what has come
            recordings.ended(take.id(), Math.max(end, Math.min(frames, end + arrived)));
            making.ask(take.id(), null);
            live.episodeChanged(take.episodeId());
        }
    }

    /** A take is no longer than the clock: since it was begun, with the room before it and some time for a clock that is a little off. */
    private long mostFrames(Session session, long mostSeconds) {
        long seconds = Duration.between(session.begunAt(), clock.instant()).toSeconds();
        return Math.min(mostSeconds, Math.max(0, seconds) * 101 / 100 + MOST_LEAD_SECONDS + SLACK_SECONDS) * session.sampleRate();
    }

    /** The page that ends a note in time sends the chunk in which it did: refused, it would be sent for ever. */
    private static long mostSeconds(Take take) {
        return take.origin() == Take.Origin.NOTE ? MOST_NOTE_SECONDS + MOST_CHUNK_SECONDS : SoundDecoder.MOST_SECONDS;
    }

    private static List<Integer> missing(List<ChunkFacts> chunks, int wanted) {
        BitSet there = new BitSet();
        chunks.forEach(chunk -> there.set(chunk.number()));
        return IntStream.range(0, Math.min(wanted, MOST_MISSING_TOLD + there.cardinality())).filter(number -> !there.get(number))
                .boxed().limit(MOST_MISSING_TOLD).toList();
    }

    private Session byKey(String uploadKey) {
        return recordings.lock(uploadKey).orElseThrow(NotFound::new);
    }

    /** Whether a take is still being recorded, as far as anybody knows. */
    private boolean isLive(Take take, Session session) {
        return take.state() == Take.State.RECORDING && session != null && session.lastSignAt().plus(LONGEST_SILENCE).isAfter(clock.instant());
    }

    /**
     * A recording that has not ended.
     *
     * @param live       whether it goes on; if not, it has broken off, what has come is kept, and it can be completed
     * @param safeFrames how much of it has come, at 48 kHz
     */
    public record Unfinished(boolean live, long safeFrames) {
    }

    /** The recordings of an episode that have not ended, by take; the viewer has been let through. */
    @Transactional(readOnly = true)
    public Map<Long, Unfinished> unfinished(List<Take> ofEpisode) {
        Map<Long, Unfinished> unfinished = new HashMap<>();
        for (Take take : ofEpisode) {
            if (take.state() == Take.State.RECORDING) {
                Session session = recordings.of(take.id()).orElseThrow();
                long came = recordings.chunks(take.id()).stream().mapToLong(ChunkFacts::frames).sum();
                unfinished.put(take.id(), new Unfinished(isLive(take, session),
                        Math.max(0, came - session.leadSourceFrames()) * Frames.RATE / session.sampleRate()));
            }
        }
        return unfinished;
    }

    /** The recordings that go on in a class that {@link Access#taughtClass} has let through, by episode. */
    @Transactional(readOnly = true)
    public Map<Long, RecentPeaks> runningOfClass(SchoolClass schoolClass) {
        return recordings.runningOfClass(schoolClass.id(), clock.instant().minus(LONGEST_SILENCE)).stream()
                .collect(Collectors.toMap(RecordingMapper.Running::episodeId, running -> RecentPeaks.of(running.recentPeaks()), (first, second) -> second));
    }

    /** The ready takes that were begun on one word, one of them among them; none as long as any of them is on its way. */
    @Transactional(readOnly = true)
    public List<Take> together(long takeId) {
        List<Take> all = recordings.together(takeId).stream().map(id -> takes.find(id).orElseThrow()).toList();
        boolean onTheWay = all.stream().anyMatch(it -> it.state() == Take.State.RECORDING || it.state() == Take.State.ARRIVED);
        return onTheWay ? List.of() : all.stream().filter(Take::ready).toList();
    }

    /** Forgets what came of a take that is being erased. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void forget(long takeId) {
        recordings.deleteChunks(takeId);
        recordings.deleteFlags(takeId);
        recordings.forget(takeId);
    }
}

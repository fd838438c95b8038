package org.mellowclass.app.takes;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.store.SkylineFile;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.Skyline;
import org.mellowclass.core.render.Takes;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.Silence;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.mellowclass.core.timeline.Gains;
import org.springframework.stereotype.Service;

/** Finds takes, their sound and their pictures. */
@Service
public class TakeShelf implements Takes {

    /** Bins in one answer of skyline data: 8 kB. */
    public static final int TILE_BINS = 4096;

    private static final double GOOD_LEVEL_DBFS = -14;
    /** A shorter room repeats so often that it is heard. */
    private static final long LEAST_LEAD = Frames.RATE;

    private final TakeMapper takes;
    private final Access access;
    private final SoundStore store;
    private final Jobs jobs;
    private final ObjectMapper json;
    private final Clock clock;

    TakeShelf(TakeMapper takes, Access access, SoundStore store, Jobs jobs, ObjectMapper json, Clock clock) {
        this.takes = takes;
        this.access = access;
        this.store = store;
        this.jobs = jobs;
        this.json = json;
        this.clock = clock;
    }

    /** All takes of an episode, the newest first. */
    public List<Take> ofEpisode(Person viewer, long episodeId) {
        return takes.ofEpisode(access.episode(viewer, episodeId).id());
    }

    /** The tracks that takes of an episode were made for: the crew's names, and where they have recorded so far. */
    public List<String> trackNames(Person viewer, long episodeId) {
        Episode episode = access.episode(viewer, episodeId);
        return Stream.concat(access.crewOf(episode).stream().map(Person::name),
                takes.ofEpisode(episodeId).stream().map(Take::trackName)).distinct().toList();
    }

    /** The ready takes of an episode whose owner has been let through already, by id. */
    public Map<Long, Take> ready(long episodeId) {
        return takes.ofEpisode(episodeId).stream().filter(Take::ready)
                .collect(Collectors.toMap(Take::id, Function.identity()));
    }

    /** The ready takes of a line of the script, the oldest first; as {@link #ready}. */
    public List<Take> ofLine(long episodeId, long lineId) {
        return takes.ofLine(episodeId, lineId);
    }

    /** The ready takes that were begun together with one, that one among them; none as long as any of them is on its way. */
    public List<Take> together(long takeId) {
        Take take = takes.find(takeId).orElseThrow();
        List<Take> all = take.together() == null ? List.of() : takes.together(take.episodeId(), take.together());
        boolean onTheWay = all.stream().anyMatch(it -> it.state() == Take.State.RECORDING || it.state() == Take.State.ARRIVED);
        return onTheWay ? List.of() : all.stream().filter(Take::ready).toList();
    }

    /** Where in the ready takes of an episode the room alone is heard, by take; as {@link #ready}. */
    public Map<Long, Span> rooms(long episodeId) {
        return takes.ofEpisode(episodeId).stream().filter(take -> take.ready() && (take.roomFrame() != null || take.leadFrames() >= LEAST_LEAD))
                .collect(Collectors.toMap(Take::id, take -> take.leadFrames() >= LEAST_LEAD ? new Span(0, take.leadFrames())
                        : new Span(take.roomFrame(), take.roomFrame() + Frames.RATE)));
    }

    /** The newest ready take of each episode of a class that {@link Access#taughtClass} has let through. */
    public Map<Long, Take> newestOfClass(SchoolClass schoolClass) {
        return takes.newestOfClass(schoolClass.id()).stream()
                .collect(Collectors.toMap(Take::episodeId, Function.identity()));
    }

    /** The recordings that go on in a class that {@link Access#taughtClass} has let through, by episode. */
    public Map<Long, RecentPeaks> runningOfClass(SchoolClass schoolClass) {
        return takes.runningOfClass(schoolClass.id(), clock.instant().minus(Take.LONGEST_SILENCE)).stream()
                .collect(Collectors.toMap(TakeMapper.Running::episodeId, running -> RecentPeaks.of(running.recentPeaks()),
                        (first, second) -> second));
    }

    /** How far a take has come on its way to being ready, in percent. */
    public OptionalInt percent(Take take) {
        return jobs.percent(TakeConversion.KIND, take.id());
    }

    /** The file of a ready take's sound, for hearing it alone. */
    public Path soundFile(Person viewer, long takeId) throws IOException {
        return store.file(readyTake(viewer, takeId).soundKey());
    }

    /** One tile of a take's skyline: peak and RMS bytes by turns, see {@link Skyline}. */
    public byte[] skyline(Person viewer, long takeId, int level, int tile) throws IOException {
        Take take = readyTake(viewer, takeId);
        if (level < 0 || level >= Skyline.FRAMES_A_BIN.length || tile < 0) {
            throw new NotFound();
        }
        return SkylineFile.read(store.file(take.skylineKey()), level, take.frames(), (long) tile * TILE_BINS, TILE_BINS);
    }

    /** The clipped spots of a take, in its frames at 48 kHz; null if it has not been measured yet. */
    public List<ClippedSpot> clipped(Take take) {
        try {
            return take.clipped() == null ? null : json.readValue(take.clipped(), new TypeReference<>() {
            });
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The spans of a ready take that never came, in its frames at 48 kHz. */
    public List<Span> missing(Take take) {
        try {
            return take.missing() == null ? List.of() : json.readValue(take.missing(), new TypeReference<>() {
            });
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** How much of a recording that has not ended has come, in frames at 48 kHz. */
    public long safeFrames(Take take) {
        long came = takes.chunks(take.id()).stream().mapToLong(TakeMapper.ChunkFacts::frames).sum();
        return Math.max(0, came - take.leadSourceFrames()) * Frames.RATE / take.sourceRate();
    }

    /** The working level of what is spoken in a ready take, from its skyline; empty for silence. */
    public OptionalDouble workingLevel(Take take) throws IOException {
        int level = Skyline.FRAMES_A_BIN.length - 1;
        int binsASecond = Frames.RATE / Skyline.FRAMES_A_BIN[level] + 1;
        byte[] bins = SkylineFile.read(store.file(take.skylineKey()), level, take.frames(), take.leadFrames() / Skyline.FRAMES_A_BIN[level], TILE_BINS);
        List<Double> peaks = new ArrayList<>();
        for (int bin = 0; bin < bins.length / 2; bin += binsASecond) {
            int peak = 0;
            for (int i = bin; i < Math.min(bin + binsASecond, bins.length / 2); i++) {
                peak = Math.max(peak, Byte.toUnsignedInt(bins[2 * i]));
            }
            peaks.add(Skyline.dbfs(peak));
        }
        return WorkingLevel.measured(peaks).stream().filter(dbfs -> dbfs > Skyline.dbfs(1)).findFirst();
    }

    /** The gain in whole dB that makes a much too quiet take as loud as a good one; empty for one that is not, and for silence. */
    public OptionalDouble gainForQuiet(Take take) throws IOException {
        OptionalDouble level = workingLevel(take);
        return level.isPresent() && level.getAsDouble() < WorkingLevel.STANDARD.lowCheck()
                ? OptionalDouble.of(Math.min(Gains.HIGHEST_DB, Math.rint(GOOD_LEVEL_DBFS - level.getAsDouble()))) : OptionalDouble.empty();
    }

    /** The whole skyline of a ready take, in at least so many bins where it has them, for a small picture. */
    public byte[] smallSkyline(Take take, int bins) throws IOException {
        return SkylineFile.readWhole(store.file(take.skylineKey()), take.frames(), bins);
    }

    @Override
    public RandomAccessSound open(long takeId) throws IOException {
        Take take = takes.find(takeId).orElseThrow(() -> new IOException("there is no take " + takeId));
        if (take.state() == Take.State.ERASED) {
            return new Silence(1, Long.MAX_VALUE);
        }
        if (!take.ready()) {
            throw new IOException("take " + takeId + " is not ready");
        }
        return WavReader.open(store.file(take.soundKey()));
    }

    private Take readyTake(Person viewer, long takeId) {
        Take take = takes.find(takeId).filter(Take::ready).orElseThrow(NotFound::new);
        access.episode(viewer, take.episodeId());
        return take;
    }
}

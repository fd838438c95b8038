package org.mellowclass.app.sounds;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.store.DerivedStore;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.SkylineFile;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.store.StoredJson;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.Skyline;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.render.Sounds;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.Silence;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.mellowclass.core.timeline.edit.Gains;
import org.mellowclass.core.timeline.edit.TakeFacts;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.core.io.Resource;
import org.springframework.stereotype.Service;
import org.springframework.util.function.SingletonSupplier;

/** Finds the sounds of takes, their pictures, and what was measured of them. */
@Service
public class TakeSounds implements Sounds {

    /** Bins in one answer of skyline data: 8 kB. */
    public static final int TILE_BINS = 4096;

    private static final double GOOD_LEVEL_DBFS = -14;
    /** A shorter room repeats so often that it is heard. */
    private static final long LEAST_LEAD = Frames.RATE;

    private final SoundMapper sounds;
    private final TakeRows takes;
    private final TakeShelf shelf;
    private final Treating treating;
    private final SoundStore store;
    private final DerivedStore derived;
    private final Jobs jobs;
    private final StoredJson<List<ClippedSpot>> spots;
    private final StoredJson<List<Span>> spans;

    TakeSounds(SoundMapper sounds, TakeRows takes, TakeShelf shelf, Treating treating, SoundStore store, DerivedStore derived, Jobs jobs, ObjectMapper json) {
        this.sounds = sounds;
        this.takes = takes;
        this.shelf = shelf;
        this.treating = treating;
        this.store = store;
        this.derived = derived;
        this.jobs = jobs;
        this.spots = spotsAsStored(json);
        this.spans = spansAsStored(json);
    }

    public static StoredJson<List<ClippedSpot>> spotsAsStored(ObjectMapper json) {
        return StoredJson.of(json, new TypeReference<>() {
        });
    }

    static StoredJson<List<Span>> spansAsStored(ObjectMapper json) {
        return StoredJson.of(json, new TypeReference<>() {
        });
    }

    /** What was measured of a take; empty until it is. */
    public Optional<TakeFindings> findings(long takeId) {
        return sounds.findings(takeId).map(this::findings);
    }

    /** Who speaks when in the measured takes of an episode that has been let through, by take. */
    public Map<Long, TakeFindings.Speech> speechOf(long episodeId) {
        return sounds.speechOfEpisode(episodeId).stream().collect(Collectors.toMap(SoundMapper.SpeechRow::takeId,
                row -> new TakeFindings.Speech(spans.read(row.pauses()), row.loudnessLufs())));
    }

    /** What was measured of the takes of an episode that has been let through, by take, but for who speaks when. */
    public Map<Long, TakeFindings> findingsOf(long episodeId) {
        Map<Long, TakeFindings> findings = new HashMap<>();
        sounds.findingsOfEpisode(episodeId).forEach(row -> findings.put(row.takeId(), findings(row)));
        return findings;
    }

    private TakeFindings findings(SoundMapper.FindingsRow row) {
        return new TakeFindings(spots.read(row.clipped()), row.noticed() == null ? StereoFinder.Noticed.NOTHING : row.noticed(), row.roomFrame(),
                row.pauses() == null ? null : new TakeFindings.Speech(spans.read(row.pauses()), row.loudnessLufs()));
    }

    /** All sounds of an episode that has been let through. */
    public List<Sound> ofEpisode(long episodeId) {
        return sounds.ofEpisode(episodeId).stream().map(SoundMapper.Row::sound).toList();
    }

    /** The spans of the takes of an episode that never came, by take, in their frames at 48 kHz. */
    public Map<Long, List<Span>> missingOf(long episodeId) {
        Map<Long, List<Span>> missing = new HashMap<>();
        sounds.originalsOfEpisode(episodeId).forEach(original -> missing.put(original.takeId(), spans.read(original.missing())));
        return missing;
    }

    /** What is worth saying of the files that were brought in, by take. */
    public Map<Long, AsItCame> asTheyCame(long episodeId) {
        return sounds.originalsOfEpisode(episodeId).stream().collect(Collectors.toMap(SoundMapper.Original::takeId, SoundMapper.Original::came));
    }

    /** What edits must know of the ready takes of an episode that has been let through; looked up when one asks, since few do. */
    public TakeFacts facts(long episodeId) {
        Supplier<Map<Long, Take>> ready = SingletonSupplier.of(() -> shelf.ready(episodeId));
        Supplier<Map<Long, TakeFindings>> findings = SingletonSupplier.of(() -> findingsOf(episodeId));
        return new TakeFacts() {
            @Override
            public OptionalLong frames(long takeId) {
                Take take = ready.get().get(takeId);
                return take == null ? OptionalLong.empty() : OptionalLong.of(take.frames());
            }

            @Override
            public Optional<Span> room(long takeId) {
                Take take = ready.get().get(takeId);
                if (take == null) {
                    return Optional.empty();
                }
                if (take.leadFrames() >= LEAST_LEAD) {
                    return Optional.of(new Span(0, take.leadFrames()));
                }
                return Optional.ofNullable(findings.get().get(takeId)).map(TakeFindings::roomFrame).map(frame -> new Span(frame, frame + Frames.RATE));
            }
        };
    }

    /** How far a take has come on its way to being ready, in percent. */
    public OptionalInt percent(Take take) {
        return jobs.percent(SoundMaking.KIND, take.id());
    }

    /** A take as it is, for hearing it alone. */
    public Resource sound(Person viewer, long takeId) throws IOException {
        return sound(shelf.readyTake(viewer, takeId));
    }

    /** What was recorded, as it is, for somebody who has been let through. */
    public Resource sound(Take take) throws IOException {
        return store.stream(asItIs(take).soundKey());
    }

    /** A take by a treatment, of somebody who has been let through. @throws SoundNotMade while it is being made */
    public Resource stream(long takeId, Treatment treatment) throws IOException {
        if (treatment.equals(Treatment.NONE)) {
            return store.stream(asItIs(takes.find(takeId).orElseThrow()).soundKey());
        }
        return derived.stream(made(treating.want(takeId, treatment)).soundKey());
    }

    /** One tile of a sound's skyline: peak and RMS bytes by turns, see {@link Skyline}. */
    public byte[] skyline(Person viewer, long soundId, int level, int tile) throws IOException {
        Sound sound = sounds.find(soundId).orElseThrow(NotFound::new).sound();
        Take take = shelf.readyTake(viewer, sound.takeId());
        if (level < 0 || level >= Skyline.FRAMES_A_BIN.length || tile < 0) {
            throw new NotFound();
        }
        Sound made = made(sound);
        try (Held skyline = hold(made, made.skylineKey())) {
            return SkylineFile.read(skyline.file(), level, made.treatment().frames(take.frames()), (long) tile * TILE_BINS, TILE_BINS);
        }
    }

    /** The working level of what is spoken in a ready take, from its skyline; empty for silence. */
    public OptionalDouble workingLevel(Take take) throws IOException {
        int level = Skyline.FRAMES_A_BIN.length - 1;
        int binsASecond = Frames.RATE / Skyline.FRAMES_A_BIN[level] + 1;
        byte[] bins;
        try (Held skyline = store.hold(asItIs(take).skylineKey())) {
            bins = SkylineFile.read(skyline.file(), level, take.frames(), take.leadFrames() / Skyline.FRAMES_A_BIN[level], TILE_BINS);
        }
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
        try (Held skyline = store.hold(asItIs(take).skylineKey())) {
            return SkylineFile.readWhole(skyline.file(), take.frames(), bins);
        }
    }

    /** Names for the pictures of the ready takes of a class that has been let through, which change when they do. */
    public Map<Long, String> skylineNames(SchoolClass schoolClass) {
        return sounds.picturesOfClass(schoolClass.id()).stream().collect(Collectors.toMap(SoundMapper.Picture::takeId, SoundMapper.Picture::skylineKey));
    }

    @Override
    public RandomAccessSound open(long takeId, Treatment treatment) throws IOException {
        Optional<Sound> sound = sounds.of(takeId, TreatmentCodec.key(treatment)).map(SoundMapper.Row::sound);
        if (sound.isEmpty() || !sound.get().made()) {
            Take take = takes.find(takeId).orElseThrow(() -> new IOException("there is no take " + takeId));
            if (take.state() == Take.State.ERASED) {
                return new Silence(1, Long.MAX_VALUE);
            }
            if (!take.ready()) {
                throw new IOException("take " + takeId + " is not ready");
            }
        }
        Sound made = sound.isPresent() ? made(sound.get()) : made(treating.want(takeId, treatment));
        Held held = hold(made, made.soundKey());
        try {
            return new HeldSound(jobs.courteousSound(WavReader.open(held.file())), held);
        } catch (IOException | RuntimeException failed) {
            held.close();
            throw failed;
        }
    }

    /** One of the two files of a sound that is made; if it can be made again and is gone, that is asked for. */
    private Held hold(Sound made, String key) throws IOException {
        if (made.treatment().equals(Treatment.NONE)) {
            return store.hold(key);
        }
        try {
            return derived.hold(key);
        } catch (NoSuchFileException lost) {
            treating.lost(made);
            throw new SoundNotMade(made.takeId());
        }
    }

    private Sound asItIs(Take take) throws IOException {
        return sounds.of(take.id(), TreatmentCodec.AS_IT_IS).map(SoundMapper.Row::sound)
                .orElseThrow(() -> new IOException("take " + take.id() + " has no sound"));
    }

    private static Sound made(Sound sound) throws IOException {
        if (sound.failed()) {
            throw new IOException("sound " + sound.id() + " could not be made");
        }
        if (!sound.made()) {
            throw new SoundNotMade(sound.takeId());
        }
        return sound;
    }
}

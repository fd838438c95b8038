package org.mellowclass.app.cleanup;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.mellowclass.app.sounds.HeardSounds;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.core.cleanup.Cleanup;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.cleanup.Learned;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Stretch;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.stereotype.Component;

/** Some seconds of a take as a recipe would make them, at once: only they are made. What is known of the take is kept for a while. */
@Component
class TrialHearing {

    static final long WINDOW_FRAMES = Frames.ofSeconds(5);

    /** Reading takes a quarter of a second a minute. */
    private static final long READ_WITHIN_A_MOMENT = Frames.ofSeconds(120);
    private static final int TAKES_KNOWN = 100;
    private static final int RECIPES_KNOWN = 50;
    /** Some 3 MB each. */
    private static final int WINDOWS_MADE = 6;
    private static final Duration KEPT = Duration.ofMinutes(30);

    private final TakeSounds sounds;
    private final Turnstile turnstile = new Turnstile(2);
    private final Cache<OfTake, Heard> known = Caffeine.newBuilder().maximumSize(TAKES_KNOWN).expireAfterAccess(KEPT).build();
    private final Cache<OfRoom, Learned> learned = Caffeine.newBuilder().maximumSize(TAKES_KNOWN).expireAfterAccess(KEPT).build();
    private final Cache<Prepared, Cleanup> prepared = Caffeine.newBuilder().maximumSize(RECIPES_KNOWN).expireAfterAccess(KEPT).build();
    private final Cache<Window, Map<Part, byte[]>> made = Caffeine.newBuilder().maximumSize(WINDOWS_MADE).expireAfterAccess(KEPT).build();

    TrialHearing(TakeSounds sounds) {
        this.sounds = sounds;
    }

    private record OfTake(long takeId, Treatment before) {
    }

    private record Prepared(OfTake take, Recipe recipe, Span room) {
    }

    private record OfRoom(OfTake take, Span room) {
    }

    private record Window(Prepared cleaned, long fromFrame) {
    }

    /** What is heard. */
    enum Part { BEFORE, AFTER, REMOVED }

    /** What is known of a take as it is without the cleanup; read once. */
    Heard heard(long takeId, Treatment treatment) throws IOException {
        OfTake key = new OfTake(takeId, HeardSounds.uncleaned(treatment));
        Heard heard = known.getIfPresent(key);
        if (heard == null) {
            heard = turnstile.pass(() -> {
                try (RandomAccessSound sound = sounds.open(takeId, key.before)) {
                    return Heard.of(Opening.of(sound));
                }
            });
            known.put(key, heard);
        }
        return heard;
    }

    /** The same if it is there already, or is there within a moment; no page waits for a long take to be read. */
    Optional<Heard> heardSoon(long takeId, Treatment treatment, long frames) throws IOException {
        return frames <= READ_WITHIN_A_MOMENT ? Optional.of(heard(takeId, treatment)) : Optional.ofNullable(known.getIfPresent(new OfTake(takeId, HeardSounds.uncleaned(treatment))));
    }

    /**
     * A window of a take as a WAV file; before and after equally loud.
     *
     * @param treatment how the take plays now
     * @param room      where its room is learned; null to find it
     */
    byte[] window(long takeId, Treatment treatment, Recipe recipe, Span room, long fromFrame, Part part) throws IOException {
        Heard heard = heard(takeId, treatment);
        Prepared cleaned = new Prepared(new OfTake(takeId, HeardSounds.uncleaned(treatment)), recipe, room);
        try {
            return made.get(new Window(cleaned, fromFrame), window -> turnstiled(window, heard)).get(part);
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        }
    }

    private Map<Part, byte[]> turnstiled(Window window, Heard heard) {
        try {
            return turnstile.pass(() -> parts(window, heard));
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private Map<Part, byte[]> parts(Window window, Heard heard) throws IOException {
        Prepared cleaned = window.cleaned;
        try (RandomAccessSound sound = sounds.open(cleaned.take.takeId, cleaned.take.before)) {
            Opening opening = Opening.of(sound);
            Cleanup cleanup = prepared.getIfPresent(cleaned);
            if (cleanup == null) {
                cleanup = Cleanup.prepare(cleaned.recipe, opening, heard, cleaned.room, learned.get(new OfRoom(cleaned.take, cleaned.room), of -> new Learned()));
                prepared.put(cleaned, cleanup);
            }
            long start = Math.max(0, Math.min(window.fromFrame, sound.frames() - 1));
            Span span = new Span(start, Math.min(sound.frames(), start + WINDOW_FRAMES));
            float[][] before = Stretch.read(new Stretch(opening.openAt(span.startFrame()), new Span(0, span.frames())), new Span(0, span.frames()));
            float[][] after = cleanup.hear(opening, span);
            OptionalDouble lufsAfter = lufs(after);
            OptionalDouble lufsBefore = lufs(before);
            double louderDb = lufsAfter.isPresent() && lufsBefore.isPresent() ? lufsAfter.getAsDouble() - lufsBefore.getAsDouble() : 0;
            byte[] removed = WavWriter.bytesOf(difference(before, after));
            return Map.of(Part.REMOVED, removed, Part.BEFORE, WavWriter.bytesOf(gained(before, Math.min(0, louderDb))), Part.AFTER, WavWriter.bytesOf(gained(after, Math.min(0, -louderDb))));
        }
    }

    private static OptionalDouble lufs(float[][] samples) {
        LoudnessMeter meter = new LoudnessMeter(samples.length);
        meter.accept(samples, samples[0].length);
        return meter.integrated();
    }

    private static float[][] gained(float[][] samples, double gainDb) {
        float gain = (float) Decibels.toAmplitude(gainDb);
        for (float[] channel : samples) {
            for (int i = 0; i < channel.length; i++) {
                channel[i] *= gain;
            }
        }
        return samples;
    }

    private static float[][] difference(float[][] before, float[][] after) {
        float[][] removed = new float[before.length][before[0].length];
        for (int c = 0; c < before.length; c++) {
            for (int i = 0; i < before[c].length; i++) {
                removed[c][i] = before[c][i] - after[Math.min(c, after.length - 1)][i];
            }
        }
        return removed;
    }
}

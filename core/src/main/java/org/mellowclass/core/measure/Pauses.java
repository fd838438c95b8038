package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;

/**
 * The pauses between words and the room that is heard in them, found from levels by {@link SpeechLevels}.
 *
 * <p>Whether a frame of 10 ms is the voice or the room is told by how the room itself is spread: in decibels, the levels of a
 * steady hiss lie within one, those of other people's talk within eight. The room's mean and deviation are taken from what lies
 * under a limit for 300 ms or more, the limit from these, until it holds still; then, as in a detector with hysteresis, a voice
 * must stand well above it on its way. With both spreads normal in decibels this is a test of likelihoods with an adaptive floor
 * (as Sohn, Kim and Sung 1999 have it for each line of a spectrum), of which the tests say how many edges it places in hiss, hum
 * and the talk of others.
 */
public final class Pauses {

    /** How many frames at 48 kHz a pause has at least: 300 ms. */
    public static final long SHORTEST_FRAMES = Frames.ofMillis(300);

    /** Kept after speech when a pause is cut, so that no last breath or soft consonant goes. */
    public static final long KEEP_AFTER_SPEECH = Frames.ofMillis(120);
    public static final long KEEP_BEFORE_SPEECH = Frames.ofMillis(80);
    private static final long NATURAL_SHORTEST = Frames.ofMillis(300);
    private static final long NATURAL_LONGEST = Frames.ofMillis(1500);
    private static final int ENOUGH_NATURAL = 8;
    private static final long USUAL_NATURAL_FRAMES = Frames.ofMillis(600);

    /** The level of a frame is the mean of these five: speech lasts, what rises for one frame alone is the room. */
    private static final int REACH = 2;
    /** Beside a pause's edges stands the voice's own fading. */
    private static final int EDGE = 5;
    /** A frame is the room's up to so many standard deviations over the room's mean level, or up to its 97th percentile. */
    private static final double DEVIATIONS = 1.5;
    private static final int HIGH_PERCENTILE = 97;
    private static final double LEAST_DEVIATION_DB = 1;
    private static final double MOST_HYSTERESIS_DB = 3;
    /** Where the search starts: so far from the room's level to the voice's. */
    private static final double FIRST_PART = 0.4;
    private static final double UNDER_VOICE_LU = 25;
    /** What lies deeper tells nothing more of the room: digital silence beside a hiss would. */
    private static final double DEEPEST_UNDER_VOICE_LU = UNDER_VOICE_LU + 6;
    /** What is closer to the voice is no room: a continuous sound has no pauses. */
    private static final double ROOM_UNDER_VOICE_LU = 6;
    private static final double LIMIT_UNDER_VOICE_LU = 7.5;
    private static final int STRETCH = 40;
    private static final int LOW_PERCENTILE = 10;
    private static final int ROUNDS = 6;
    /** A sound this short is a click or a lip, no speech. */
    private static final int SHORTEST_SPEECH = 3;

    private final List<Span> spans;
    private final OptionalDouble roomDbfs;
    private final OptionalDouble roomLufs;

    private Pauses(List<Span> spans, OptionalDouble roomDbfs, OptionalDouble roomLufs) {
        this.spans = List.copyOf(spans);
        this.roomDbfs = roomDbfs;
        this.roomLufs = roomLufs;
    }

    /** The pauses as measured, in order, silence before the first word and behind the last among them. */
    public List<Span> spans() {
        return spans;
    }

    /** What of the pauses can be cut without touching a breath or a soft consonant; short ones leave nothing. */
    public List<Span> safeToCut() {
        List<Span> safe = new ArrayList<>();
        for (Span pause : spans) {
            long start = pause.startFrame() + KEEP_AFTER_SPEECH;
            long end = pause.endFrame() - KEEP_BEFORE_SPEECH;
            if (start < end) {
                safe.add(new Span(start, end));
            }
        }
        return safe;
    }

    /** The natural pause of this speaker, in frames: the median of those of 0.3 to 1.5 s, or 0.6 s if there are too few. */
    public long naturalFrames() {
        return natural(spans);
    }

    /** As {@link #naturalFrames()}, of the pauses of one speaker. */
    public static long natural(List<Span> pauses) {
        long[] lengths = pauses.stream().mapToLong(Span::frames)
                .filter(frames -> frames >= NATURAL_SHORTEST && frames <= NATURAL_LONGEST).sorted().toArray();
        return lengths.length < ENOUGH_NATURAL ? USUAL_NATURAL_FRAMES : lengths[lengths.length / 2];
    }

    /**
     * The noise floor: the 10th percentile of 400 ms stretches inside the pauses, dBFS RMS where full scale is an amplitude
     * of 1. Empty where the room is digital silence.
     */
    public OptionalDouble noiseFloorDbfs() {
        return roomDbfs;
    }

    /** The noise floor K-weighted, in LUFS. */
    public OptionalDouble noiseFloorLufs() {
        return roomLufs;
    }

    /**
     * Finds the pauses of a sound.
     *
     * @param levels its levels
     * @param voice  its integrated loudness in LUFS; empty for silence
     */
    static Pauses find(SpeechLevels levels, OptionalDouble voice) {
        double[] weighted = levels.weighted();
        long[] all = {0, weighted.length};
        List<long[]> pauses = voice.isPresent() ? between(weighted, voice.getAsDouble() - LoudnessMeter.OFFSET_LUFS)
                : weighted.length * (long) SpeechLevels.FRAME >= SHORTEST_FRAMES ? List.of(all) : List.of();
        if (voice.isPresent() && !pauses.isEmpty()
                && percentile(weighted, pauses) > Decibels.toPower(voice.getAsDouble() - LoudnessMeter.OFFSET_LUFS - ROOM_UNDER_VOICE_LU)) {
            pauses = List.of();
        }
        List<Span> spans = pauses.stream().map(pause -> new Span(pause[0] * SpeechLevels.FRAME, Math.min(levels.frames(), pause[1] * SpeechLevels.FRAME)))
                .filter(span -> span.frames() >= SHORTEST_FRAMES).toList();
        List<long[]> where = pauses.isEmpty() ? List.of(all) : pauses;
        return new Pauses(spans, level(percentile(levels::plain, weighted.length, where), 0),
                level(percentile(weighted, where), LoudnessMeter.OFFSET_LUFS));
    }

    /** @param voiceDb the voice's mean power in decibels */
    private static List<long[]> between(double[] powers, double voiceDb) {
        double[] raw = new double[powers.length];
        double[] level = new double[powers.length];
        double deepest = voiceDb - DEEPEST_UNDER_VOICE_LU;
        for (int i = 0; i < powers.length; i++) {
            raw[i] = Math.max(deepest, decibels(powers[i]));
            int from = Math.max(0, i - REACH);
            level[i] = Math.max(deepest, decibels(mean(powers, from, Math.min(powers.length, i + REACH + 1))));
        }
        double least = voiceDb - UNDER_VOICE_LU;
        double most = voiceDb - LIMIT_UNDER_VOICE_LU;
        double room = Math.max(deepest, decibels(percentile(powers, List.of(new long[] {0, powers.length}))));
        double limit = Math.max(least, Math.min(most, room + FIRST_PART * (voiceDb - room)));
        double hysteresis = LEAST_DEVIATION_DB;
        for (int round = 0; round < ROUNDS; round++) {
            double[] inside = inside(level, limit);
            if (inside.length == 0) {
                return List.of();
            }
            double mean = decibels(Arrays.stream(inside).map(Decibels::toPower).average().orElseThrow());
            double middle = Arrays.stream(inside).average().orElseThrow();
            double deviation = Math.max(LEAST_DEVIATION_DB, Math.sqrt(Arrays.stream(inside).map(db -> (db - middle) * (db - middle)).average().orElseThrow()));
            double high = inside[(inside.length - 1) * HIGH_PERCENTILE / 100];
            double before = limit;
            limit = Math.max(least, Math.min(most, Math.max(mean + DEVIATIONS * deviation, high)));
            hysteresis = Math.min(MOST_HYSTERESIS_DB, deviation);
            if (Math.abs(limit - before) < 0.05) {
                break;
            }
        }
        return pauses(raw, level, limit, limit + hysteresis);
    }

    /** The levels inside the stretches that stay under a limit for as long as a pause, without their edges; sorted. */
    private static double[] inside(double[] level, double limit) {
        double[] inside = new double[level.length];
        int count = 0;
        int start = 0;
        for (int i = 0; i <= level.length; i++) {
            if (i == level.length || level[i] >= limit) {
                if (isPause(start, i)) {
                    int length = i - start - 2 * EDGE;
                    System.arraycopy(level, start + EDGE, inside, count, length);
                    count += length;
                }
                start = i + 1;
            }
        }
        double[] sorted = Arrays.copyOf(inside, count);
        Arrays.sort(sorted);
        return sorted;
    }

    /** Somebody speaks from where the level has left the room to where it comes back, if it has stood well above on its way. */
    private static List<long[]> pauses(double[] raw, double[] level, double quiet, double speaks) {
        List<long[]> pauses = new ArrayList<>();
        int start = 0;
        for (int at = 0; at < level.length; ) {
            if (level[at] <= speaks) {
                at++;
                continue;
            }
            int from = at;
            while (from > start && level[from - 1] > quiet) {
                from--;
            }
            int to = at;
            while (to < level.length && level[to] > quiet) {
                to++;
            }
            at = to;
            // the mean reaches over the edge
            while (from < to && raw[from] <= quiet) {
                from++;
            }
            while (to > from && raw[to - 1] <= quiet) {
                to--;
            }
            if (to - from >= SHORTEST_SPEECH) {
                if (isPause(start, from)) {
                    pauses.add(new long[] {start, from});
                }
                start = to;
            }
        }
        if (isPause(start, level.length)) {
            pauses.add(new long[] {start, level.length});
        }
        return pauses;
    }

    private static boolean isPause(int from, int to) {
        return (long) (to - from) * SpeechLevels.FRAME >= SHORTEST_FRAMES;
    }

    private static double decibels(double power) {
        return power > 0 ? Decibels.ofPower(power) : Double.NEGATIVE_INFINITY;
    }

    private static double mean(double[] powers, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += powers[i];
        }
        return sum / (to - from);
    }

    /** The 10th percentile of the mean powers of stretches of 400 ms inside spans; shorter spans count as one stretch. */
    private static double percentile(double[] powers, List<long[]> spans) {
        return percentile((start, length) -> mean(powers, start, start + length), powers.length, spans);
    }

    /** The mean power of so many frames from one on. */
    @FunctionalInterface
    private interface Stretch {
        double power(int start, int length);
    }

    private static double percentile(Stretch stretch, int frames, List<long[]> spans) {
        double[] means = new double[frames + spans.size()];
        int count = 0;
        for (long[] span : spans) {
            int length = (int) Math.min(STRETCH, span[1] - span[0]);
            for (int start = (int) span[0]; length > 0 && start + length <= span[1]; start += Math.max(1, length / 4)) {
                means[count++] = stretch.power(start, length);
            }
        }
        if (count == 0) {
            return Double.NaN;
        }
        Arrays.sort(means, 0, count);
        return means[(count - 1) * LOW_PERCENTILE / 100];
    }

    private static OptionalDouble level(double power, double offset) {
        return power > 0 ? OptionalDouble.of(offset + Decibels.ofPower(power)) : OptionalDouble.empty();
    }
}

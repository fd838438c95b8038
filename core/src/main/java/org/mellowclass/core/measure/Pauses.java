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
 * <p>A frame of 10 ms belongs to a pause while it is close to the room's level; once it stands well above, somebody speaks
 * (hysteresis). The room's level is first taken as the 10th percentile of all stretches of 400 ms, then from inside the
 * pauses found with it, until it holds still. Where the room is very quiet, what lies 25 LU under the voice is a pause too.
 */
public final class Pauses {

    /** How many frames at 48 kHz a pause has at least: 300 ms. */
    public static final long SHORTEST_FRAMES = Frames.ofMillis(300);

    /** Kept after speech when a pause is cut, so that no last breath or soft consonant goes. */
    private static final long KEEP_AFTER_SPEECH = Frames.ofMillis(120);
    private static final long KEEP_BEFORE_SPEECH = Frames.ofMillis(80);
    private static final long NATURAL_SHORTEST = Frames.ofMillis(300);
    private static final long NATURAL_LONGEST = Frames.ofMillis(1500);
    private static final int ENOUGH_NATURAL = 8;
    private static final long USUAL_NATURAL_FRAMES = Frames.ofMillis(600);

    private static final double SPEAKS_OVER_ROOM_DB = 6;
    private static final double PAUSE_OVER_ROOM_DB = 2.5;
    private static final double FAINT_OVER_ROOM_DB = 0.8;
    private static final int FAINT_MEAN = 3;
    private static final int MOST_FAINT = 12;
    private static final double UNDER_VOICE_LU = 25;
    /** What is closer to the voice is no room: a continuous sound has no pauses. */
    private static final double ROOM_UNDER_VOICE_LU = 6;
    private static final int STRETCH = 40;
    private static final int LOW_PERCENTILE = 10;
    private static final int ROUNDS = 4;
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
        long[] lengths = spans.stream().mapToLong(Span::frames)
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
        double room = percentile(weighted, List.of(all));
        List<long[]> pauses = List.of();
        for (int round = 0; round < ROUNDS; round++) {
            pauses = pausesAt(weighted, room, voice);
            double inside = percentile(weighted, pauses);
            if (Double.isNaN(inside) || inside == room) {
                break;
            }
            room = inside;
        }
        if (voice.isPresent() && room > Decibels.toPower(voice.getAsDouble() - LoudnessMeter.OFFSET_LUFS - ROOM_UNDER_VOICE_LU)) {
            pauses = List.of();
        }
        List<Span> spans = pauses.stream().map(pause -> withoutTails(weighted, pause, underVoice(voice)))
                .map(pause -> new Span(pause[0] * SpeechLevels.FRAME, Math.min(levels.frames(), pause[1] * SpeechLevels.FRAME)))
                .filter(span -> span.frames() >= SHORTEST_FRAMES).toList();
        List<long[]> where = pauses.isEmpty() ? List.of(all) : pauses;
        return new Pauses(spans, level(percentile(levels::plain, weighted.length, where), 0),
                level(percentile(weighted, where), LoudnessMeter.OFFSET_LUFS));
    }

    private static List<long[]> pausesAt(double[] powers, double room, OptionalDouble voice) {
        double underVoice = underVoice(voice);
        double speaks = Math.max(room * Decibels.toPower(SPEAKS_OVER_ROOM_DB), underVoice);
        double quiet = Math.max(room * Decibels.toPower(PAUSE_OVER_ROOM_DB), underVoice);
        List<long[]> pauses = new ArrayList<>();
        int start = 0;
        int at = 0;
        while (at < powers.length) {
            int loud = at;
            while (loud < powers.length && !speech(powers, loud, speaks, quiet)) {
                loud++;
            }
            // back to where it left the room, and on to where it comes back
            int left = loud;
            while (left > start && loud < powers.length && powers[left - 1] > quiet) {
                left--;
            }
            add(pauses, start, left);
            int back = loud;
            while (back < powers.length && powers[back] > quiet) {
                back++;
            }
            start = back;
            at = back;
        }
        if (start < powers.length) {
            add(pauses, start, powers.length);
        }
        return pauses;
    }

    /**
     * A pause without the last of the voice before it and the first of the voice behind it, which are so faint that only
     * their mean over some frames stands out of this pause's own room.
     */
    private static long[] withoutTails(double[] powers, long[] pause, double underVoice) {
        int start = (int) pause[0];
        int end = (int) pause[1];
        double faint = Math.max(underVoice, mean(powers, start, end) * Decibels.toPower(FAINT_OVER_ROOM_DB));
        for (int i = 0; i < MOST_FAINT && mean(powers, start, start + FAINT_MEAN) > faint; i++) {
            start++;
        }
        for (int i = 0; i < MOST_FAINT && mean(powers, end - FAINT_MEAN, end) > faint; i++) {
            end--;
        }
        return new long[] {start, end};
    }

    private static double mean(double[] powers, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += powers[i];
        }
        return sum / (to - from);
    }

    /** The power that is 25 LU under the voice; 0 where there is none. */
    private static double underVoice(OptionalDouble voice) {
        return voice.isPresent() ? Decibels.toPower(voice.getAsDouble() - LoudnessMeter.OFFSET_LUFS - UNDER_VOICE_LU) : 0;
    }

    /** Whether somebody speaks from a frame on: it is loud, and what rises there lasts. */
    private static boolean speech(double[] powers, int at, double speaks, double quiet) {
        if (powers[at] <= speaks) {
            return false;
        }
        int lasts = 1;
        for (int back = at - 1; back >= 0 && powers[back] > quiet; back--) {
            lasts++;
        }
        for (int on = at + 1; on < powers.length && powers[on] > quiet && lasts < SHORTEST_SPEECH; on++) {
            lasts++;
        }
        return lasts >= SHORTEST_SPEECH;
    }

    private static void add(List<long[]> pauses, int start, int end) {
        if ((long) (end - start) * SpeechLevels.FRAME >= SHORTEST_FRAMES) {
            pauses.add(new long[] {start, end});
        }
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

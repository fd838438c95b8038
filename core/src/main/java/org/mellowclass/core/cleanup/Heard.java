package org.mellowclass.core.cleanup;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.measure.BurstFinder;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.measure.HumMeter;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.MeanOfChannels;
import org.mellowclass.core.measure.Pauses;
import org.mellowclass.core.measure.SibilanceMeter;
import org.mellowclass.core.measure.SpeechLevels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/**
 * What is known of a take before it is cleaned, from one pass over it.
 *
 * @param loudnessLufs integrated; empty for silence
 * @param roomDbfs     the noise floor between words; empty for digital silence
 * @param roomLufs     the same K-weighted
 * @param pauses       where nobody speaks
 * @param room         where the room can be learned: inside the pauses, but not in digital silence; empty where there is no pause long enough
 * @param voicedDbfs   the mean level of voiced frames; empty where nobody speaks
 * @param clicks       mouth clicks, in order
 * @param pops         in order
 * @param momentaryLufs every 100 ms, see {@link LoudnessMeter#momentary()}
 */
public record Heard(int channels, long frames, OptionalDouble loudnessLufs, OptionalDouble roomDbfs, OptionalDouble roomLufs, List<Span> pauses, List<Span> room,
                    Optional<HumFinder.Hum> hum, OptionalDouble voicedDbfs, List<Span> clicks, List<Span> pops, double[] momentaryLufs) {

    /** Speech fades in and out at the edges of a pause. */
    private static final long EDGE = Frames.ofMillis(100);
    private static final long SHORTEST_ROOM = Frames.ofMillis(250);
    private static final long ENOUGH_ROOM = Frames.ofSeconds(10);

    public Heard {
        pauses = List.copyOf(pauses);
        room = List.copyOf(room);
        clicks = List.copyOf(clicks);
        pops = List.copyOf(pops);
    }

    /** All of it. */
    public static Heard of(Opening take) throws IOException {
        return of(take, EnumSet.allOf(StepKind.class));
    }

    /** What the steps of a recipe ask for; hum, voiced level, clicks and pops that no step asks for stay empty. */
    public static Heard of(Opening take, Recipe recipe) throws IOException {
        return of(take, recipe.steps().stream().map(Recipe.Step::kind).collect(Collectors.toCollection(() -> EnumSet.noneOf(StepKind.class))));
    }

    /** @param take at 48 kHz */
    private static Heard of(Opening take, Set<StepKind> askedBy) throws IOException {
        boolean asksForHum = askedBy.contains(StepKind.HUM_OUT);
        boolean asksForBursts = askedBy.contains(StepKind.CLICKS) || askedBy.contains(StepKind.POPS);
        boolean asksForVoiced = askedBy.contains(StepKind.SOFT_S);
        try (SampleSource sound = take.open()) {
            SpeechLevels levels = new SpeechLevels(sound.channels());
            MeanOfChannels mean = new MeanOfChannels();
            HumMeter hum = new HumMeter();
            BurstFinder bursts = new BurstFinder();
            SibilanceMeter sibilance = new SibilanceMeter();
            long frames = SampleSink.drain(sound, levels, (block, count) -> {
                float[][] one = mean.of(block, count);
                if (asksForHum) {
                    hum.accept(one, count);
                }
                if (asksForBursts) {
                    bursts.accept(one, count);
                }
                if (asksForVoiced) {
                    sibilance.accept(one, count);
                }
            });
            Pauses pauses = levels.pauses();
            LoudnessMeter loudness = levels.loudness();
            return new Heard(sound.channels(), frames, loudness.integrated(), pauses.noiseFloorDbfs(), pauses.noiseFloorLufs(), pauses.spans(),
                    room(levels.outsideSilence(pauses.spans()), frames), hum.hum(), sibilance.voicedDbfs(), bursts.clicks(), bursts.pops(), loudness.momentary());
        }
    }

    /** Voice minus room, in LU; empty if either has no value. */
    public OptionalDouble voiceToRoomLu() {
        return loudnessLufs.isPresent() && roomLufs.isPresent() && !pauses.isEmpty()
                ? OptionalDouble.of(loudnessLufs.getAsDouble() - roomLufs.getAsDouble()) : OptionalDouble.empty();
    }

    /** The longest pauses first, some seconds at most. */
    private static List<Span> room(List<Span> quiet, long frames) {
        List<Span> rooms = new ArrayList<>();
        long left = ENOUGH_ROOM;
        for (Span pause : quiet.stream().sorted(Comparator.comparingLong(Span::frames).reversed()).toList()) {
            long start = pause.startFrame() == 0 ? 0 : pause.startFrame() + EDGE;
            long end = Math.min(pause.endFrame() >= frames ? frames : pause.endFrame() - EDGE, start + left);
            if (end - start >= SHORTEST_ROOM) {
                rooms.add(new Span(start, end));
                left -= end - start;
            }
        }
        return rooms;
    }
}

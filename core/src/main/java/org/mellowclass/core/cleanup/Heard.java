package org.mellowclass.core.cleanup;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

import org.mellowclass.core.measure.BurstFinder;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.measure.HumMeter;
import org.mellowclass.core.measure.LoudnessMeter;
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
 * @param voicedDbfs   the mean level of voiced frames; empty where nobody speaks
 * @param clicks       mouth clicks, in order
 * @param pops         in order
 * @param momentaryLufs every 100 ms, see {@link LoudnessMeter#momentary()}
 */
public record Heard(int channels, long frames, OptionalDouble loudnessLufs, OptionalDouble roomDbfs, OptionalDouble roomLufs, List<Span> pauses,
                    Optional<HumFinder.Hum> hum, OptionalDouble voicedDbfs, List<Span> clicks, List<Span> pops, double[] momentaryLufs) {

    /** Speech fades in and out at the edges of a pause. */
    private static final long EDGE = Frames.ofMillis(100);
    private static final long SHORTEST_ROOM = Frames.ofMillis(250);
    private static final long ENOUGH_ROOM = Frames.ofSeconds(10);

    public Heard {
        pauses = List.copyOf(pauses);
        clicks = List.copyOf(clicks);
        pops = List.copyOf(pops);
    }

    /** @param take at 48 kHz */
    public static Heard of(Opening take) throws IOException {
        try (SampleSource sound = take.open()) {
            SpeechLevels levels = new SpeechLevels(sound.channels());
            HumMeter hum = new HumMeter(sound.channels());
            BurstFinder bursts = new BurstFinder(sound.channels());
            SibilanceMeter sibilance = new SibilanceMeter(sound.channels());
            long frames = SampleSink.drain(sound, levels, hum, bursts, sibilance);
            Pauses pauses = levels.pauses();
            LoudnessMeter loudness = levels.loudness();
            return new Heard(sound.channels(), frames, loudness.integrated(), pauses.noiseFloorDbfs(), pauses.noiseFloorLufs(), pauses.spans(),
                    hum.hum(), sibilance.voicedDbfs(), bursts.clicks(), bursts.pops(), loudness.momentary());
        }
    }

    /** Voice minus room, in LU; empty if either has no value. */
    public OptionalDouble voiceToRoomLu() {
        return loudnessLufs.isPresent() && roomLufs.isPresent() && !pauses.isEmpty()
                ? OptionalDouble.of(loudnessLufs.getAsDouble() - roomLufs.getAsDouble()) : OptionalDouble.empty();
    }

    /** Where the room can be learned: inside the pauses, the longest first, some seconds at most. Empty where there is no pause long enough. */
    public List<Span> room() {
        List<Span> rooms = new ArrayList<>();
        long left = ENOUGH_ROOM;
        for (Span pause : pauses.stream().sorted(Comparator.comparingLong(Span::frames).reversed()).toList()) {
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

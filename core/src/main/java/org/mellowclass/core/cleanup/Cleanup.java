package org.mellowclass.core.cleanup;

import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

import org.mellowclass.core.dsp.Blended;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/** A recipe that knows a take: it makes of it a sound that is as long, frame on frame, or any stretch of that. */
public final class Cleanup {

    /** A shorter room says too little. */
    public static final long SHORTEST_ROOM = Frames.ofMillis(500);

    private final Stage.Chain chain;
    private final Set<StepKind> notDone;

    private Cleanup(List<Prepared> steps, Set<StepKind> notDone) {
        this.chain = new Stage.Chain(steps);
        this.notDone = Set.copyOf(notDone);
    }

    /**
     * Looks at a take, step by step, each as the steps before it leave it.
     *
     * @param take at 48 kHz
     * @param room where the room is learned, in frames of the take; null to find it
     * @throws CleanupRefused if the room that was chosen is none
     */
    public static Cleanup prepare(Recipe recipe, Opening take, Heard heard, Span room) throws IOException {
        return prepare(recipe, take, heard, room, new Learned());
    }

    /**
     * As {@link #prepare(Recipe, Opening, Heard, Span)}, with what was learned of the same take and the same room before.
     *
     * @throws CleanupRefused if the room that was chosen is none
     */
    public static Cleanup prepare(Recipe recipe, Opening take, Heard heard, Span room, Learned learned) throws IOException {
        if (room != null) {
            checkRoom(room, heard);
        }
        List<Span> rooms = room == null ? heard.room() : List.of(room);
        List<Prepared> prepared = new ArrayList<>();
        Set<StepKind> notDone = EnumSet.noneOf(StepKind.class);
        List<Recipe.Step> before = new ArrayList<>();
        for (Recipe.Step step : recipe.steps()) {
            if (step.done()) {
                Prepared next = step.kind().prepare(step.values(), new Stage(take, heard, rooms, new Stage.Chain(prepared), before, learned));
                before.add(step);
                if (next == Prepared.NOTHING) {
                    notDone.add(step.kind());
                    continue;
                }
                prepared.add(step.blendPercent() == Recipe.WHOLE_PERCENT ? next : blended(next, step.blendPercent()));
            }
        }
        return new Cleanup(prepared, notDone);
    }

    /** Whether a stretch can be the room: in the take, long enough, and in a pause. */
    public static void checkRoom(Span room, Heard heard) {
        if (room.frames() < SHORTEST_ROOM || room.endFrame() > heard.frames()) {
            throw new CleanupRefused(CleanupRefused.Reason.ROOM_TOO_SHORT);
        }
        long quiet = 0;
        for (Span pause : heard.pauses()) {
            quiet += Math.max(0, Math.min(pause.endFrame(), room.endFrame()) - Math.max(pause.startFrame(), room.startFrame()));
        }
        // edges as measured are some hundredths of a second off
        if (heard.loudnessLufs().isPresent() && room.frames() - quiet > Frames.ofMillis(40)) {
            throw new CleanupRefused(CleanupRefused.Reason.ROOM_HAS_SPEECH);
        }
    }

    private static Prepared blended(Prepared step, int percent) {
        return new Prepared() {
            @Override
            public SampleSource process(SampleSource sound, long fromFrame) throws IOException {
                return new Blended(sound, dry -> step.process(dry, fromFrame), percent / 100.0);
            }

            @Override
            public int settleFrames() {
                return step.settleFrames();
            }
        };
    }

    /** Steps that found nothing to do: no hum, no click, no pause from which the room could be learned. */
    public Set<StepKind> notDone() {
        return notDone;
    }

    /** The whole take, cleaned. Closing it closes the take. */
    public SampleSource process(SampleSource take) throws IOException {
        return chain.process(take, 0);
    }

    /** A stretch of it, as good as of the whole. */
    public float[][] hear(Opening take, Span span) throws IOException {
        return chain.read(take, span);
    }
}

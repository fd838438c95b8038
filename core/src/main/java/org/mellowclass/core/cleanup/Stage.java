package org.mellowclass.core.cleanup;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Stretch;

/** A take as a step finds it: behind the steps in front of it. */
final class Stage {

    private final Opening take;
    private final Heard heard;
    private final List<Span> room;
    private final Chain before;
    private final List<Recipe.Step> steps;
    private final Learned learned;

    /**
     * @param room   where the room is learned, in frames of the take
     * @param before the steps in front of it, prepared
     * @param steps  the same as they are set
     */
    Stage(Opening take, Heard heard, List<Span> room, Chain before, List<Recipe.Step> steps, Learned learned) {
        this.take = take;
        this.heard = heard;
        this.room = room;
        this.before = before;
        this.steps = steps;
        this.learned = learned;
    }

    /** What a step learns here, once. */
    <T> T once(StepKind by, Learned.Learning<T> learning) throws IOException {
        return learned.once(steps, by, learning);
    }

    /** What is known of the take as it was. */
    Heard heard() {
        return heard;
    }

    /**
     * The samples of the room as the step finds them: of each stretch, one array a channel. Empty where nobody pauses long enough.
     *
     * @param most frames that are enough
     */
    List<float[][]> room(long most) throws IOException {
        List<float[][]> read = new ArrayList<>();
        long left = most;
        for (Span span : room) {
            if (left > 0) {
                read.add(before.read(take, new Span(span.startFrame(), Math.min(span.endFrame(), span.startFrame() + left))));
                left -= span.frames();
            }
        }
        return read;
    }

    SampleSource whole() throws IOException {
        return before.process(take.open(), 0);
    }

    /** Steps that follow each other, prepared. */
    static final class Chain {

        private final List<Prepared> steps;

        Chain(List<Prepared> steps) {
            this.steps = List.copyOf(steps);
        }

        SampleSource process(SampleSource sound, long fromFrame) throws IOException {
            SampleSource changed = sound;
            for (Prepared step : steps) {
                changed = step.process(changed, fromFrame);
            }
            return changed;
        }

        long settleFrames() {
            return steps.stream().mapToLong(Prepared::settleFrames).sum();
        }

        /** A span of what the steps make of a take, rendered with as much in front as they need to settle, and some behind. */
        float[][] read(Opening take, Span span) throws IOException {
            long from = Math.max(0, span.startFrame() - settleFrames());
            // what looks ahead must see what follows
            SampleSource near = new Stretch(take.openAt(from), new Span(0, span.endFrame() - from + settleFrames() + Frames.RATE));
            return Stretch.read(process(near, from), new Span(span.startFrame() - from, span.endFrame() - from));
        }
    }
}

package org.mellowclass.core.treatment;

import java.io.IOException;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;

/**
 * How a take's sound is changed wherever it plays: an ordered value, at most one step of each kind. A clip plays a take by a
 * treatment, so that mending is an edit like any other and the take stays what was said. A treated sound can always be made
 * again of the take and this.
 */
public record Treatment(List<Step> steps) {

    /** The take as it is. */
    public static final Treatment NONE = new Treatment(List.of());

    /** Raise it when the same steps make other samples: what was made by an older engine is made again. */
    public static final int ENGINE_VERSION = 1;

    public Treatment {
        steps = steps.stream().filter(step -> !step.changesNothing()).sorted(Comparator.comparingInt(Step::order)).toList();
        if (steps.stream().mapToInt(Step::order).distinct().count() < steps.size()) {
            throw new IllegalArgumentException("two steps of one kind: " + steps);
        }
    }

    public static Treatment of(Step... steps) {
        return new Treatment(List.of(steps));
    }

    /** This with a step, instead of the one of its kind if there is one. */
    public Treatment with(Step step) {
        return new Treatment(Stream.concat(steps.stream().filter(other -> other.order() != step.order()), Stream.of(step)).toList());
    }

    public <S extends Step> Optional<S> step(Class<S> kind) {
        return steps.stream().filter(kind::isInstance).map(kind::cast).findFirst();
    }

    /** Whether every frame stands where it stands in the take. */
    public boolean keepsTime() {
        return timeAlone().steps.isEmpty();
    }

    /** Of its steps those that change time. */
    public Treatment timeAlone() {
        return new Treatment(steps.stream().filter(Step::changesTime).toList());
    }

    public Treatment without(Class<? extends Step> kind) {
        return new Treatment(steps.stream().filter(step -> !kind.isInstance(step)).toList());
    }

    /** How long a take of so many frames becomes: known before anything is made. */
    public long frames(long takeFrames) {
        long frames = takeFrames;
        for (Step step : steps) {
            frames = step.frames(frames);
        }
        return frames;
    }

    /** Where a frame of the take is in the treated sound. */
    public long fromTake(long takeFrame) {
        long frame = takeFrame;
        for (Step step : steps) {
            frame = step.after(frame);
        }
        return frame;
    }

    /** The first frame of the take that is at or behind a frame of the treated sound. */
    public long toTake(long treatedFrame) {
        long frame = treatedFrame;
        for (int i = steps.size() - 1; i >= 0; i--) {
            frame = steps.get(i).before(frame);
        }
        return frame;
    }

    /** The treated sound of a take at 48 kHz, which is opened as often as a step must hear it. */
    public SampleSource process(Opening take, Findings findings) throws IOException {
        Opening sound = take;
        for (Step step : steps) {
            Opening before = sound;
            sound = () -> step.process(before, findings);
        }
        return sound.open();
    }
}

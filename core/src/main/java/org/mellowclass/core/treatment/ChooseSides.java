package org.mellowclass.core.treatment;

import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Sides;

/** Makes what is wanted of the two sides of a take. */
public record ChooseSides(Sides sides) implements Step {

    @Override
    public SampleSource process(SampleSource sound, Findings findings) {
        return sides.of(sound);
    }

    @Override
    public int order() {
        return 1;
    }
}

package org.mellowclass.core.treatment;

import java.io.IOException;

import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Sides;

/** Makes what is wanted of the two sides of a take. */
public record ChooseSides(Sides sides) implements Step {

    @Override
    public SampleSource process(Opening sound, Findings findings) throws IOException {
        return sides.of(sound.open());
    }

    @Override
    public int order() {
        return 1;
    }
}

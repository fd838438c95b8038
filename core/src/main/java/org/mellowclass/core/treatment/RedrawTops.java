package org.mellowclass.core.treatment;

import java.io.IOException;

import org.mellowclass.core.dsp.Declipper;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;

/** Draws the tops that clipping cut off anew, see {@link Declipper}. */
public record RedrawTops() implements Step {

    @Override
    public SampleSource process(Opening sound, Findings findings) throws IOException {
        return Declipper.of(sound.open(), findings.clipped());
    }

    @Override
    public int order() {
        return 2;
    }
}

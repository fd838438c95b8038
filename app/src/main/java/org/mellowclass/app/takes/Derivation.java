package org.mellowclass.app.takes;

import java.io.IOException;
import java.util.List;

import org.mellowclass.core.dsp.Declipper;
import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;

/** How a take is made of another one: of its sides, with its clipped tops drawn anew, or by another clock. */
public enum Derivation {
    LEFT, RIGHT, MEAN, RIGHT_REVERSED, UNCLIPPED, IN_STEP;

    /**
     * What it makes of a take's sound at 48 kHz.
     *
     * @param clipped  where the take is clipped
     * @param driftPpm how much longer it becomes, in millionths
     */
    SampleSource of(SampleSource whole, List<Span> clipped, double driftPpm) throws IOException {
        return switch (this) {
            case LEFT, RIGHT, MEAN, RIGHT_REVERSED -> Sides.valueOf(name()).of(whole);
            case UNCLIPPED -> Declipper.of(whole, clipped);
            case IN_STEP -> Resampler.byClock(driftPpm, whole);
        };
    }
}

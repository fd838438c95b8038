package org.mellowclass.core.treatment;

import java.io.IOException;

import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;

/** One thing that is done to a take's sound wherever it plays. The take itself never changes. */
public sealed interface Step permits PlayReturned, ChooseSides, RedrawTops, MendPlaces, CleanUp, Trick, CorrectClock {

    /**
     * The sound with this done to it, at the same rate. It may be heard several times; closing the result closes what was opened.
     *
     * @param findings what was found in the whole take
     */
    SampleSource process(Opening sound, Findings findings) throws IOException;

    /** Whether it leaves everything as it is: a treatment does not keep such a step. */
    default boolean changesNothing() {
        return false;
    }

    /** Whether a frame may stand elsewhere after it. */
    default boolean changesTime() {
        return false;
    }

    /** How long it makes a sound of so many frames. */
    default long frames(long frames) {
        return frames;
    }

    /** Where a frame of the sound before is in the sound after. */
    default long after(long frame) {
        return frame;
    }

    /** The first frame of the sound before that is at or behind a frame of the sound after. */
    default long before(long frame) {
        return frame;
    }

    /** Its place among the steps of a treatment: the kinds are done in the order of these numbers. */
    int order();
}

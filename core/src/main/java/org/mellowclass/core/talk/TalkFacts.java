package org.mellowclass.core.talk;

import java.util.List;
import java.util.Optional;

import org.mellowclass.core.sound.Span;

/** What was measured of the takes that are heard on a page. */
public interface TalkFacts {

    /**
     * What was measured of one take, in its frames at 48 kHz.
     *
     * @param voice        whether somebody speaks in it; otherwise it is music or an effect
     * @param pauses       where nobody speaks in it
     * @param loudnessLufs integrated (ITU-R BS.1770-5), one channel as one channel; null for silence
     */
    record Measured(boolean voice, List<Span> pauses, Double loudnessLufs) {
    }

    /** Empty for a take that is not measured. */
    Optional<Measured> of(long takeId);
}

package org.mellowclass.core.soundcheck;

import java.util.List;

import org.mellowclass.core.sound.Span;

/**
 * One line of the sound check.
 *
 * @param value  in the unit of its kind; null where there is none (silence), so that it is written as {@code null}
 * @param places where to look, in frames of the episode
 */
public record Reading(Kind kind, Verdict verdict, Double value, List<Span> places) {

    /** What is read, with the unit of its value. */
    public enum Kind {
        /** Integrated loudness, LUFS. */
        LOUDNESS,
        /** Highest interpolated level, dBTP. */
        TRUE_PEAK,
        /** Clipped runs in the takes used, a count. */
        CLIPPING,
        /** The longest stretch of dead air, seconds; 0 where there is none over two seconds. */
        DEAD_AIR,
        /** Seconds. */
        LENGTH,
        /** How far the limiter had to reach, dB; told where that is far. */
        LIMITED,
        /** The gain with which it is finished, dB; told where it is the highest there is. */
        RAISED
    }

    public Reading {
        places = List.copyOf(places);
    }
}

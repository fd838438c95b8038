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
        /** Integrated loudness. */
        LOUDNESS("LUFS"),
        /** Highest interpolated level. */
        TRUE_PEAK("dBTP"),
        /** Clipped runs in the takes used. */
        CLIPPING(""),
        /** The median one-second peak while somebody speaks, of the take that is furthest off. */
        WORKING_LEVEL("dBFS"),
        /** Loudness range of speech. */
        LOUDNESS_RANGE("LU"),
        /** Between the loudest speaker and the softest. */
        VOICES_EVEN("LU"),
        /** How far music lies under the voice where it is nearest. */
        MUSIC_UNDER_VOICE("LU"),
        /** How far the room lies under the voice, in the take where it is nearest. */
        ROOM_NOISE("LU"),
        /** The frequency of the mains that is heard; null where none is. */
        HUM("Hz"),
        /** The longest stretch of dead air; 0 where there is none over two seconds. */
        DEAD_AIR("s"),
        /** Before the first sound. */
        STARTS_AND_ENDS("s"),
        /** How many joins click. */
        JOINS(""),
        /** How many. */
        DROPOUTS(""),
        /** Correlation of both sides, from -1 to 1. */
        SIDES(""),
        /** Mouth clicks and pops. */
        BURSTS(""),
        /** Harsh "s" in a minute. */
        SIBILANCE("a minute"),
        LENGTH("s"),
        /** How many parts that the brief asks for are missing. */
        PARTS(""),
        /** How many sounds have nobody to thank. */
        CREDITS(""),
        /** How far the limiter had to reach; told where that is far. */
        LIMITED("dB"),
        /** The gain with which it is finished; told where it is the highest there is. */
        RAISED("dB");

        private final String unit;

        Kind(String unit) {
            this.unit = unit;
        }

        public String unit() {
            return unit;
        }
    }

    public Reading {
        places = List.copyOf(places);
    }
}

package org.mellowclass.app.lineup;

import java.time.Instant;

import org.mellowclass.core.measure.LineUp;

/**
 * Two takes of one conversation, and how they lie to each other.
 *
 * @param offsetFrames how much later the second starts, at 48 kHz; null unless they match
 * @param driftPpm     how much faster the first one's clock counts; null where it is not known
 * @param confidence   the share of the compared stretches that agree, from 0 to 1; null until they are measured
 * @param reason       why they do not match, or null
 * @param laysItself   whether they are laid in step as soon as they match
 * @param laidAt       when they were laid in step, or null
 */
public record LinedUp(long id, long episodeId, long firstTake, long secondTake, State state, Long offsetFrames, Double driftPpm,
                      Double confidence, LineUp.Reason reason, boolean laysItself, Instant laidAt, long askedBy) {

    /** Failed: they could not be compared, whatever they hold. */
    public enum State { MEASURING, MATCHED, REFUSED, FAILED }
}

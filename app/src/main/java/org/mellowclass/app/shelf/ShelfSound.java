package org.mellowclass.app.shelf;

import java.time.Instant;

/**
 * Music or an effect that a class may use.
 *
 * @param author    who made it
 * @param licence   what allows its use
 * @param source    where it is from
 * @param credit    the line that listeners get to read
 * @param problem   why it has failed; null otherwise
 * @param frames    its length at 48 kHz; null until it is ready, as are the keys of what is made from it
 * @param clipped   its clipped spots as JSON
 */
public record ShelfSound(long id, long classId, String name, Kind kind, String author, String licence, String source,
                         String credit, State state, String problem, int sourceRate, String originalKey, String soundKey,
                         String skylineKey, Integer channels, Long frames, String clipped, Instant createdAt) {

    public enum Kind { MUSIC, EFFECT }

    public enum State { ARRIVED, READY, FAILED }

    public boolean ready() {
        return state == State.READY;
    }
}

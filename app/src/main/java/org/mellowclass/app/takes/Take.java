package org.mellowclass.app.takes;

import java.time.Instant;

import org.mellowclass.core.sound.Span;

/**
 * What was said: one recording, or one file that was brought in. How it sounds and how it is treated are other things.
 *
 * @param trackName  the track that it lands on
 * @param problem    why it has failed; null otherwise
 * @param lineId     the line of the script that it speaks, or null
 * @param leadFrames how much of its start is the room before the first word, at 48 kHz
 * @param frames     its length at 48 kHz; null until it is ready
 */
public record Take(long id, long episodeId, long authorId, String name, String trackName, Origin origin, State state, String problem,
                   Long lineId, long leadFrames, Long frames, Instant createdAt) {

    public static final int LONGEST_TRACK_NAME = 60;

    /** Spoken here, brought in as a file, from the shelf; or spoken in a teacher's note, which is no take of the crew's. */
    public enum Origin { RECORDED, BROUGHT_IN, SHELF, NOTE }

    /** Being recorded; all there but not made ready yet; ready to be heard; refused; erased. */
    public enum State { RECORDING, ARRIVED, READY, FAILED, ERASED }

    /** Where a take lands: behind everything on its track, at the start of it, or nowhere until somebody lays it on. */
    public enum Placing { BEHIND, START, LIST }

    /** What is heard of it on the page: everything behind the room that was kept before the first word. */
    public Span spoken() {
        return new Span(leadFrames, frames);
    }

    public boolean ready() {
        return state == State.READY;
    }

    /** Whether it came as chunks, and not as a file. */
    public boolean cameFromMicrophone() {
        return origin == Origin.RECORDED || origin == Origin.NOTE;
    }

    boolean ofCrew() {
        return origin != Origin.NOTE;
    }
}

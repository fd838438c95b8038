package org.mellowclass.app.review;

import java.time.Instant;

import org.mellowclass.core.sound.Span;

/**
 * What a teacher, or a student of another crew, says of a span of a hand-in.
 *
 * @param words      what is written; empty for one that is only spoken
 * @param startFrame in the hand-in, at 48 kHz
 * @param anchor     the recorded sound it is bound to, as JSON
 * @param doneWords  how the crew did what it asks for; may be null
 * @param agreedAt   when the teacher agreed that it is done; null as long as nobody has
 * @param trackNames the tracks that it speaks of, as they were called; null for the whole
 * @param byStudent  of another crew
 * @param heldAt     since when a teacher holds it back; null for one that nobody holds
 * @param takeId     what is spoken; null for one that is only written
 * @param shownAt    since when its crew sees it; null as long as it does not: it is held, or its sound is on its way
 * @param reportedAt when its crew reported it
 * @param doneAt     when somebody of the crew ticked it; null as long as nobody has
 */
public record MarginNote(long id, long handInId, long episodeId, int handInNumber, String authorName, Kind kind, String words,
                         long startFrame, long endFrame, String anchor, Instant doneAt,
                         String doneWords, Instant agreedAt, long authorId, String trackNames, boolean byStudent, Instant heldAt, Instant reportedAt, Long takeId, Instant shownAt) {

    public enum Kind { LOVELY, QUESTION, MEND }

    public Span span() {
        return new Span(startFrame, endFrame);
    }

    public boolean held() {
        return heldAt != null;
    }

    public boolean spoken() {
        return takeId != null;
    }

    /** Whether its crew sees it. */
    public boolean shown() {
        return shownAt != null;
    }

    public boolean agreed() {
        return agreedAt != null;
    }

    public boolean done() {
        return doneAt != null;
    }
}

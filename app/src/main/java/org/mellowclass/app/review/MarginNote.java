package org.mellowclass.app.review;

import java.time.Instant;

import org.mellowclass.core.sound.Span;

/**
 * What a teacher, or a student of another crew, says of a span of a hand-in.
 *
 * @param startFrame in the hand-in, at 48 kHz
 * @param anchor     the recorded sound it is bound to, as JSON
 * @param doneWords  how the crew did what it asks for; may be null
 * @param agreedAt   when the teacher agreed that it is done; null as long as nobody has
 * @param trackNames the tracks that it speaks of, as they were called; null for the whole
 * @param byStudent  of another crew
 * @param heldAt     since when its crew does not see it; null for one that is seen
 * @param reportedAt when its crew reported it
 * @param doneAt     when somebody of the crew ticked it; null as long as nobody has
 */
public record MarginNote(long id, long handInId, long episodeId, int handInNumber, String authorName, Kind kind, String words,
                         long startFrame, long endFrame, String anchor, Instant doneAt,
                         String doneWords, Instant agreedAt, long authorId, String trackNames, boolean byStudent, Instant heldAt, Instant reportedAt) {

    public enum Kind { LOVELY, QUESTION, MEND }

    public Span span() {
        return new Span(startFrame, endFrame);
    }

    public boolean held() {
        return heldAt != null;
    }

    public boolean agreed() {
        return agreedAt != null;
    }

    public boolean done() {
        return doneAt != null;
    }
}

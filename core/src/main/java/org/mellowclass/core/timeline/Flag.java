package org.mellowclass.core.timeline;

/**
 * A named moment.
 *
 * @param id      unique in its timeline, never used again
 * @param trackId the track whose sound it speaks of, and with which it moves
 */
public record Flag(long id, long trackId, long frame, String name) {

    public Flag at(long newFrame) {
        return new Flag(id, trackId, newFrame, name);
    }

    public Flag named(String newName) {
        return new Flag(id, trackId, frame, newName);
    }
}

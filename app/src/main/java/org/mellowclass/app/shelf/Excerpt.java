package org.mellowclass.app.shelf;

import org.mellowclass.core.sound.Span;

/** A named stretch of a shelf sound, in its frames at 48 kHz. */
public record Excerpt(long id, long soundId, String name, long startFrame, long endFrame) {

    public Span span() {
        return new Span(startFrame, endFrame);
    }
}

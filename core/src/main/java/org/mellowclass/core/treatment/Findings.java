package org.mellowclass.core.treatment;

import java.util.List;

import org.mellowclass.core.sound.Span;

/**
 * What steps must know of the whole take, found once, before anything is done to it.
 *
 * @param clipped where it is clipped, in order, in its frames at 48 kHz
 */
public record Findings(List<Span> clipped) {

    public Findings {
        clipped = List.copyOf(clipped);
    }
}

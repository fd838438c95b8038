package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.sound.Span;

/** An edit of a stretch of time on chosen tracks. */
public sealed interface SpanEdit extends Edit permits Remove, Blank, Clear, Fill, Soften, Split {

    Span span();

    Set<Long> trackIds();

    /** The same edit of another stretch and other tracks. */
    SpanEdit on(Span span, Set<Long> trackIds);

    @Override
    default Optional<Edit> rebased(Meanwhile meanwhile) {
        return OnSpan.rebasedOnClips(this, meanwhile);
    }
}

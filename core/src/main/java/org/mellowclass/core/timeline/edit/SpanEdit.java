package org.mellowclass.core.timeline;

import java.util.Set;

import org.mellowclass.core.sound.Span;

/** An edit of a stretch of time on chosen tracks. */
public sealed interface SpanEdit extends Edit permits Remove, Blank, Soften, Split {

    Span span();

    Set<Long> trackIds();

    /** The same edit on other tracks. */
    SpanEdit on(Set<Long> trackIds);

    @Override
    SpanEdit shiftedBy(long frames);
}

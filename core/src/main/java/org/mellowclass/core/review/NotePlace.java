package org.mellowclass.core.review;

import java.util.List;
import java.util.function.Supplier;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;

/**
 * Where a note stands in a later timeline.
 *
 * @param places in order; empty if its words are gone
 */
public record NotePlace(Kind kind, List<Span> places) {

    public enum Kind {
        /** At its words, wherever they have gone. */
        AT_WORDS,
        /** At what was put in the place of its words. */
        AT_SWAP,
        GONE
    }

    public NotePlace {
        places = List.copyOf(places);
    }

    /**
     * @param span    where the note was written
     * @param changes from the timeline in which it was written to the later one; asked for only where its words are gone
     */
    public static NotePlace of(NoteAnchor anchor, Span span, Timeline is, Supplier<List<Change>> changes) {
        List<Span> words = anchor.places(is);
        if (!words.isEmpty()) {
            return new NotePlace(Kind.AT_WORDS, words);
        }
        List<Span> swapped = changes.get().stream().filter(change -> change.kind() == Change.Kind.SWAPPED && change.was().meets(span.startFrame(), span.endFrame())
                && change.is().frames() > 0).map(change -> new Span(change.is().startFrame(), change.is().endFrame())).toList();
        return new NotePlace(swapped.isEmpty() ? Kind.GONE : Kind.AT_SWAP, swapped);
    }
}

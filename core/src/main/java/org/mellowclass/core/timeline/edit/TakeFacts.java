package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.OptionalLong;

import org.mellowclass.core.sound.Span;

/** What edits must know of takes. */
public interface TakeFacts {

    /** How long a take is, at 48 kHz; empty if there is no such take that can be heard. */
    OptionalLong frames(long takeId);

    /** Where in a take the room alone is heard, in its frames at 48 kHz; empty if that is not known. */
    Optional<Span> room(long takeId);
}

package org.mellowclass.core.timeline;

import org.mellowclass.core.treatment.Treatment;

/** The sound of a take. */
public record TakeSource(long takeId, Treatment treatment) implements Source {

    /** The take as it is. */
    public TakeSource(long takeId) {
        this(takeId, Treatment.NONE);
    }

    @Override
    public TakeSource treated(Treatment other) {
        return new TakeSource(takeId, other);
    }
}

package org.mellowclass.core.timeline;

/** A take as it is. */
public record TakeSource(long takeId) implements Source {

    @Override
    public TakeSource of(long otherTakeId) {
        return new TakeSource(otherTakeId);
    }
}

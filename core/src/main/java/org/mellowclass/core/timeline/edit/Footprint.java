package org.mellowclass.core.timeline;

import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What an edit touches, not what merely moves along.
 *
 * @param clipIds  clips that it changes or takes away
 * @param trackIds tracks whose settings it changes
 * @param flagIds  flags that it changes or takes away
 * @param space    stretches of tracks, free of clips, that it takes away or fills
 */
public record Footprint(Set<Long> clipIds, Set<Long> trackIds, Set<Long> flagIds, Set<Space> space) {

    /** A stretch of one track. */
    public record Space(long trackId, long startFrame, long endFrame) {
        boolean overlaps(Space other) {
            return trackId == other.trackId && startFrame < other.endFrame && other.startFrame < endFrame;
        }
    }

    public Footprint {
        clipIds = Set.copyOf(clipIds);
        trackIds = Set.copyOf(trackIds);
        flagIds = Set.copyOf(flagIds);
        space = Set.copyOf(space);
    }

    static final Footprint NOTHING = ofClips(Set.of());

    static Footprint of(Set<Long> clipIds, Set<Space> space) {
        return new Footprint(clipIds, Set.of(), Set.of(), space);
    }

    static Footprint ofClips(Set<Long> clipIds) {
        return of(clipIds, Set.of());
    }

    Footprint and(Footprint other) {
        return new Footprint(both(clipIds, other.clipIds), both(trackIds, other.trackIds), both(flagIds, other.flagIds),
                both(space, other.space));
    }

    private static <T> Set<T> both(Set<T> one, Set<T> other) {
        return Stream.concat(one.stream(), other.stream()).collect(Collectors.toSet());
    }

    /** Whether two edits of one timeline touch nothing in common. */
    public boolean disjoint(Footprint other) {
        return clipIds.stream().noneMatch(other.clipIds::contains)
                && trackIds.stream().noneMatch(other.trackIds::contains)
                && flagIds.stream().noneMatch(other.flagIds::contains)
                && space.stream().noneMatch(here -> other.space.stream().anyMatch(here::overlaps));
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.HashSet;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;

/**
 * A passage of one track that becomes longer or shorter: time opens or closes at its end on the tied tracks.
 *
 * @param longer   by how many frames; negative for shorter, by less than the passage
 * @param tiedIds  tracks that go along, the passage's own among them
 * @param alongIds as those of {@link OpenUp}
 */
record Refit(Span passage, long longer, Set<Long> tiedIds, Set<Long> alongIds) {

    Edited fitted(Timeline timeline) {
        if (longer > 0) {
            return new OpenUp(passage.endFrame(), longer, tiedIds, alongIds).opened(timeline);
        }
        return longer < 0 ? new Remove(closed(), tiedIds, alongIds).closed(timeline) : Edited.inPlace(timeline);
    }

    /** What of the passage's time goes. */
    private Span closed() {
        return new Span(passage.endFrame() + longer, passage.endFrame());
    }

    /** Everything before its end: it must mean the same moments on all of its tracks. */
    Footprint footprint() {
        return Footprint.ofStretches(tiedIds.stream().map(id -> new Footprint.Stretch(id, new Span(0, passage.endFrame() + 1))).collect(Collectors.toSet()));
    }

    /** The same in the newest timeline, where the passage must be what it was. */
    Refit rebased(long trackId, Meanwhile meanwhile) {
        if (!meanwhile.head().trackIds().containsAll(tiedIds)) {
            throw Meanwhile.changed(Set.of());
        }
        meanwhile.requireSame(trackId, passage, Set.of());
        if (longer < 0) {
            tiedIds.forEach(id -> meanwhile.requireSame(id, closed(), Set.of()));
        }
        long start = meanwhile.oneMoment(tiedIds, passage.startFrame());
        long end = meanwhile.oneMoment(tiedIds, passage.endFrame());
        if (end - start != passage.frames()) {
            throw Meanwhile.changed(Set.of());
        }
        Set<Long> along = new HashSet<>(alongIds);
        along.addAll(meanwhile.newlyTiedTo(tiedIds));
        return new Refit(new Span(start, end), longer, tiedIds, along);
    }
}

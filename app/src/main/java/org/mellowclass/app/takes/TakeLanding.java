package org.mellowclass.app.takes;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.treatment.Treatment;

/** Told when a take has become ready, in the transaction that makes it so; lays it onto its track. */
public interface TakeLanding {

    /** Where a take was to land: at a frame of the page, or as the placing says if that is null. */
    record Place(Take.Placing placing, Long placeFrame) {
    }

    /**
     * Whoever asks holds the episode, so that takes land one after the other.
     *
     * @param flags moments flagged while speaking, in frames of the take at 48 kHz
     * @return the track on which it landed; empty if it waits in the take list
     */
    Optional<String> land(Take take, Place place, List<Long> flags);

    /**
     * How a take plays on the page.
     *
     * @param lowestGainDb of its clips
     * @param treatments   of its clips
     */
    record OnPage(double lowestGainDb, Set<Treatment> treatments) {
    }

    /** The takes that are on the page. */
    Map<Long, OnPage> onPage(long episodeId);
}

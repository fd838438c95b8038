package org.mellowclass.app.takes;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Told when a take has become ready, in the transaction that makes it so; lays it onto its track. */
public interface TakeLanding {

    /** Holds an episode until the transaction ends, so that takes land one after the other. */
    void hold(long episodeId);

    /**
     * @param flags moments flagged while speaking, in frames of the take at 48 kHz
     * @return the track on which it landed; empty if it waits in the take list
     */
    Optional<String> land(Take take, List<Long> flags);

    /** The lowest gain in dB of the clips of each take that is on the page. */
    Map<Long, Double> gains(long episodeId);

    /** More is known of a take of the episode than when it landed. */
    void measured(long episodeId);
}

package org.mellowclass.app.takes;

import java.time.Instant;

/**
 * One recording or one file that was brought in.
 *
 * @param trackName      the track that it lands on
 * @param problem        why it has failed; null otherwise
 * @param sourceRate     the rate it came at; 0 for a file that has not been looked at yet
 * @param frames         its length at 48 kHz; null until it is ready, as are the keys of what is made from it
 * @param clipped        its clipped spots as JSON
 * @param roomFrame      where its quietest second starts, at 48 kHz; null if it has none
 */
public record Take(long id, long episodeId, long authorId, String name, String trackName, Origin origin, State state,
                   String problem, int sourceRate, int sourceChannels, String originalKey, String soundKey,
                   String skylineKey, Integer channels, Long frames, String clipped, Long roomFrame, Instant createdAt) {

    public enum Origin { RECORDED, BROUGHT_IN }

    /** Being recorded; all there but not made ready yet; ready to be heard; refused. */
    public enum State { RECORDING, ARRIVED, READY, FAILED }

    public boolean ready() {
        return state == State.READY;
    }
}

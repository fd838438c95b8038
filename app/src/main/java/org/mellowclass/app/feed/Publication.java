package org.mellowclass.app.feed;

import java.time.Instant;

/**
 * One time that an episode went, or is about to go, on air. Its public key is random and never used again.
 *
 * @param nextHandInId the hand-in that is about to take its place; null for none
 * @param version  how many have stood under this page so far
 * @param soundKey the MP3's key in the store; null until it is made and again once it is off air
 */
public record Publication(long id, long episodeId, long handInId, String publicKey, String title, String description,
                          String slug, State state, String soundKey, Long bytes, Long frames, Double loudnessLufs,
                          Double truePeakDbtp, Instant createdAt, Instant onAirAt, Instant offAirAt, Long nextHandInId, int version) {

    public enum State { PREPARING, ON_AIR, OFF_AIR, FAILED }

    public boolean onAir() {
        return state == State.ON_AIR;
    }

    /** What its file is called: a correction is another file, so that nobody hears the old one from a store on the way. */
    public String fileName() {
        return version == 1 ? slug : slug + "-" + version;
    }

    public boolean live() {
        return state == State.ON_AIR || state == State.PREPARING;
    }
}

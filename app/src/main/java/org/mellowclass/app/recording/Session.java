package org.mellowclass.app.recording;

import java.time.Instant;

/**
 * How a take was or is recorded.
 *
 * @param sampleRate       of its chunks
 * @param lastSignAt       when it last gave a sign of life
 * @param begunAt          when speaking began
 * @param sourceFrames     how long it is, at that rate; null until it has ended
 * @param leadSourceFrames how much of its start is the room before the first word, at that rate
 * @param recentPeaks      see {@link RecentPeaks}
 * @param seal             the key of what its laptop keeps, see {@link Seal}; null for one that began before there was one
 */
record Session(long takeId, int sampleRate, Instant lastSignAt, Instant begunAt, Long sourceFrames, long leadSourceFrames, String recentPeaks,
               byte[] seal) {
}

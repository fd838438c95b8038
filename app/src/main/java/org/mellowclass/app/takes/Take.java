package org.mellowclass.app.takes;

import java.time.Duration;
import java.time.Instant;

import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;

/**
 * One recording or one file that was brought in.
 *
 * @param trackName      the track that it lands on
 * @param problem        why it has failed; null otherwise
 * @param sourceRate     the rate it came at; 0 for a file that has not been looked at yet
 * @param frames         its length at 48 kHz; null until it is ready, as are the keys of what is made from it
 * @param clipped        its clipped spots as JSON; null until it is measured
 * @param roomFrame      where its quietest second starts, at 48 kHz; null if it has none
 * @param lastSignAt     when its recording last gave a sign of life
 * @param sourceFrames   how long its recording was, at the source's rate; null until it has ended
 * @param leadSourceFrames how much of its start is the room before the first word, at the source's rate
 * @param leadFrames     the same at 48 kHz
 * @param placeFrame     where its clip lands; null for behind everything
 * @param lineId         the line of the script that it speaks, or null
 * @param placing        where it lands, if it has no place of its own
 * @param noticed        what is odd about its two sides; null until it is measured
 * @param madeFrom       the take of which it was made, or null
 * @param derivation     how it was made of it
 * @param driftPpm       by how much its clock was corrected; null for other derivations
 * @param together       the word on which two laptops began it and another one, or null
 * @param microphone     what the browser granted, as JSON; null for files
 * @param missing        the spans of it that never came, at 48 kHz, as JSON; null until it is ready
 */
public record Take(long id, long episodeId, long authorId, String name, String trackName, Origin origin, State state,
                   String problem, int sourceRate, int sourceChannels, String originalKey, String soundKey,
                   String skylineKey, Integer channels, Long frames, String clipped, Long roomFrame, Instant lastSignAt, Long sourceFrames,
                   String missing, long leadSourceFrames, long leadFrames, Long placeFrame, Long lineId, Placing placing, StereoFinder.Noticed noticed, Long madeFrom, Derivation derivation, Double driftPpm,
                   String together, String microphone, Instant createdAt) {

    public static final int LONGEST_TRACK_NAME = 60;

    public enum Origin { RECORDED, BROUGHT_IN, SHELF }

    /** What is kept of a sound that is ready, and what is known of it. */
    public record Files(String originalKey, String soundKey, String skylineKey, int sourceRate, int channels, long frames,
                        String clipped) {
    }

    /** Where a take lands: behind everything on its track, at the start of it, nowhere until somebody lays it on, or in the place of the one it was made from. */
    public enum Placing { BEHIND, START, LIST, SWAP }

    /** Being recorded; all there but not made ready yet; ready to be heard; refused; erased. */
    public enum State { RECORDING, ARRIVED, READY, FAILED, ERASED }

    /** How long a recording may be silent before it counts as interrupted. */
    static final Duration LONGEST_SILENCE = Duration.ofMinutes(2);

    /** Whether it is still being recorded, as far as anybody knows. */
    boolean recording(Instant now) {
        return state == State.RECORDING && lastSignAt.plus(LONGEST_SILENCE).isAfter(now);
    }

    /** Whether its recording has broken off; what has come is kept, and it can be completed. */
    boolean interrupted(Instant now) {
        return state == State.RECORDING && !recording(now);
    }

    /** This take with what was made of it; it is measured later. */
    Take madeReady(int rate, int itsChannels, long itsFrames, String newOriginalKey, String newSoundKey, String newSkylineKey, String newMissing) {
        return new Take(id, episodeId, authorId, name, trackName, origin, State.READY, null, rate, itsChannels,
                newOriginalKey, newSoundKey, newSkylineKey, itsChannels, itsFrames, null, null, lastSignAt, sourceFrames, newMissing, leadSourceFrames,
                Math.min(Frames.converted(leadSourceFrames, rate), itsFrames - 1),
                placeFrame, lineId, placing, null, madeFrom, derivation, driftPpm, together, microphone, createdAt);
    }

    /** What is heard of it on the page: everything behind the room that was kept before the first word. */
    public Span spoken() {
        return new Span(leadFrames, frames);
    }

    /** Whether its clipped spots, its room and its sides are known. */
    public boolean measured() {
        return clipped != null;
    }

    /** Whether its sound can be made again of what is kept; what was spoken came in chunks that are gone once it is ready. */
    boolean canBeMadeAgain() {
        return origin != Origin.RECORDED;
    }

    public boolean ready() {
        return state == State.READY;
    }
}

package org.mellowclass.core.treatment;

import java.io.IOException;

import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;

/**
 * Plays a take by another clock, so that it keeps step with one that recorded the same conversation.
 *
 * @param longerPpm how much longer it becomes, in millionths
 */
public record CorrectClock(double longerPpm) implements Step {

    @Override
    public SampleSource process(Opening sound, Findings findings) throws IOException {
        return Resampler.byClock(longerPpm, sound.open());
    }

    @Override
    public long frames(long frames) {
        return dividedUp(Math.multiplyExact(frames, ticks()), Resampler.CLOCK_TICKS);
    }

    @Override
    public long after(long frame) {
        return Math.floorDiv(Math.multiplyExact(frame, ticks()), Resampler.CLOCK_TICKS);
    }

    @Override
    public long before(long frame) {
        return dividedUp(Math.multiplyExact(frame, Resampler.CLOCK_TICKS), ticks());
    }

    private static long dividedUp(long frames, long by) {
        return -Math.floorDiv(-frames, by);
    }

    private long ticks() {
        return Resampler.clockTicks(longerPpm);
    }

    @Override
    public boolean changesTime() {
        return true;
    }

    @Override
    public int order() {
        return 6;
    }
}

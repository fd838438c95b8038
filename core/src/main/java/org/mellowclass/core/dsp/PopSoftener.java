package org.mellowclass.core.dsp;

import java.util.List;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;

/** Takes the rumble out of pops: where one is, the sound goes over into itself without what lies below 150 Hz, and back. */
public final class PopSoftener implements Processor {

    private static final double BELOW_HZ = 150;
    private static final int OVER_FRAMES = (int) Frames.ofMillis(8);
    private static final int SETTLE_FRAMES = (int) Frames.ofMillis(100);

    private final List<Span> places;
    private final Biquad[][] filters;
    private final float[] filtered = new float[4096];
    private long frame;
    private int next;

    /** @param places in order, apart from each other by more than it takes to go over */
    public PopSoftener(int channels, List<Span> places) {
        this.places = List.copyOf(places);
        filters = new Biquad[channels][];
        for (int c = 0; c < channels; c++) {
            filters[c] = new Biquad[] {Biquad.highPass(BELOW_HZ, 0.5412), Biquad.highPass(BELOW_HZ, 1.3066)};
        }
    }

    @Override
    public void process(float[][] block, int frames) {
        for (int done = 0; done < frames; ) {
            int count = Math.min(filtered.length, frames - done);
            int at = next;
            for (int c = 0; c < filters.length; c++) {
                System.arraycopy(block[c], done, filtered, 0, count);
                for (Biquad filter : filters[c]) {
                    filter.process(filtered, 0, count);
                }
                at = next;
                for (int i = 0; i < count; i++) {
                    while (at < places.size() && places.get(at).endFrame() + OVER_FRAMES < frame + i) {
                        at++;
                    }
                    if (at < places.size()) {
                        block[c][done + i] += part(places.get(at), frame + i) * (filtered[i] - block[c][done + i]);
                    }
                }
            }
            next = at;
            frame += count;
            done += count;
        }
    }

    private static float part(Span place, long frame) {
        long into = frame < place.startFrame() ? place.startFrame() - frame : frame >= place.endFrame() ? frame - place.endFrame() + 1 : 0;
        return into >= OVER_FRAMES ? 0 : (float) (0.5 * (1 + Math.cos(Math.PI * into / OVER_FRAMES)));
    }

    @Override
    public void reset() {
        for (Biquad[] chain : filters) {
            for (Biquad filter : chain) {
                filter.reset();
            }
        }
        frame = 0;
        next = 0;
    }

    @Override
    public int latencyFrames() {
        return 0;
    }

    @Override
    public int settleFrames() {
        return SETTLE_FRAMES;
    }
}

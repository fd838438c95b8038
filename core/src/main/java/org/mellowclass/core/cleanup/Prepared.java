package org.mellowclass.core.cleanup;

import java.io.IOException;
import java.util.List;

import org.mellowclass.core.dsp.Limiter;
import org.mellowclass.core.dsp.PlaceMender;
import org.mellowclass.core.dsp.Processor;
import org.mellowclass.core.dsp.Streamed;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/** A step that has looked at the whole take: with what it found in plain numbers, it makes of any stretch what it makes of the whole. */
interface Prepared {

    /** The step has nothing to do in this take. */
    Prepared NOTHING = (sound, fromFrame) -> sound;

    /**
     * The sound with the step done to it, as long as it was and frame on frame.
     *
     * @param fromFrame which frame of the take the sound starts with
     */
    SampleSource process(SampleSource sound, long fromFrame) throws IOException;

    /** How much must be given in front of a place. */
    default int settleFrames() {
        return 0;
    }

    /** Makes a processor for so many channels. */
    @FunctionalInterface
    interface Making {
        Processor of(int channels);
    }

    static Prepared by(Making making) {
        int settle = making.of(1).settleFrames();
        return new Prepared() {
            @Override
            public SampleSource process(SampleSource sound, long fromFrame) {
                return new Streamed(sound, making.of(sound.channels()));
            }

            @Override
            public int settleFrames() {
                return settle;
            }
        };
    }

    /** Something at places of the take, of which a stretch has some. */
    @FunctionalInterface
    interface AtPlaces {
        SampleSource process(SampleSource sound, List<Span> places) throws IOException;
    }

    static Prepared at(List<Span> places, int settleFrames, AtPlaces change) {
        return places.isEmpty() ? NOTHING : new Prepared() {
            @Override
            public SampleSource process(SampleSource sound, long fromFrame) throws IOException {
                List<Span> shifted = places.stream().filter(place -> place.startFrame() >= fromFrame)
                        .map(place -> new Span(place.startFrame() - fromFrame, place.endFrame() - fromFrame)).toList();
                return change.process(sound, shifted);
            }

            @Override
            public int settleFrames() {
                return settleFrames;
            }
        };
    }

    static Prepared mending(List<Span> places) {
        return at(places, (int) PlaceMender.LONGEST * 4, PlaceMender::of);
    }

    static Prepared limiting(double ceilingDbtp) {
        return new Prepared() {
            @Override
            public SampleSource process(SampleSource sound, long fromFrame) {
                return new Limiter(sound, 0, ceilingDbtp);
            }

            @Override
            public int settleFrames() {
                return Limiter.MEMORY_FRAMES;
            }
        };
    }
}

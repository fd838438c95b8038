package org.mellowclass.core.sound;

import java.io.IOException;

/** Opens a sound, as often as it must be heard. */
@FunctionalInterface
public interface Opening {

    /** From its start. */
    SampleSource open() throws IOException;

    /** From a frame on; what cannot seek reads all that is before. */
    default SampleSource openAt(long frame) throws IOException {
        return frame == 0 ? open() : new Stretch(open(), new Span(frame, Long.MAX_VALUE));
    }

    /** A sound that is read at any place; it is closed by who opened it, not by who has heard it. */
    static Opening of(RandomAccessSound sound) {
        return new Opening() {
            @Override
            public SampleSource open() {
                return openAt(0);
            }

            @Override
            public SampleSource openAt(long frame) {
                return new FromFrame(sound, frame);
            }
        };
    }

    /** The rest of a sound. */
    final class FromFrame implements SampleSource {

        private final RandomAccessSound sound;
        private long frame;

        private FromFrame(RandomAccessSound sound, long frame) {
            this.sound = sound;
            this.frame = frame;
        }

        @Override
        public int channels() {
            return sound.channels();
        }

        @Override
        public int sampleRate() {
            return Frames.RATE;
        }

        @Override
        public int read(float[][] into, int offset, int frames) throws IOException {
            int count = (int) Math.max(0, Math.min(frames, sound.frames() - frame));
            if (count > 0) {
                sound.readAt(frame, into, offset, count);
                frame += count;
            }
            return count;
        }
    }
}

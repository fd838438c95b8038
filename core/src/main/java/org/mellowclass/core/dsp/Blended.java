package org.mellowclass.core.dsp;

import java.io.IOException;
import java.util.Arrays;

import org.mellowclass.core.sound.SampleSource;

/** A sound with a part of what was done to it: both frame on frame, straight between them. Closing it closes the sound. */
public final class Blended implements SampleSource {

    /** Makes of a sound one that is as long. */
    @FunctionalInterface
    public interface Change {
        SampleSource of(SampleSource sound) throws IOException;
    }

    private final SampleSource changed;
    private final float part;
    /** What the change has read and nobody has heard yet, by channel. */
    private float[][] ahead;
    private int waiting;

    /** @param part of the changed sound, from 0 to 1 */
    public Blended(SampleSource sound, Change change, double part) throws IOException {
        this.ahead = new float[sound.channels()][4096];
        this.part = (float) part;
        this.changed = change.of(new Overheard(sound));
    }

    @Override
    public int channels() {
        return ahead.length;
    }

    @Override
    public int sampleRate() {
        return changed.sampleRate();
    }

    @Override
    public int read(float[][] into, int offset, int frames) throws IOException {
        int count = changed.read(into, offset, frames);
        for (int c = 0; c < ahead.length; c++) {
            for (int i = 0; i < count; i++) {
                into[c][offset + i] = ahead[c][i] + part * (into[c][offset + i] - ahead[c][i]);
            }
            System.arraycopy(ahead[c], count, ahead[c], 0, waiting - count);
        }
        waiting -= count;
        return count;
    }

    @Override
    public void close() throws IOException {
        changed.close();
    }

    private final class Overheard implements SampleSource {

        private final SampleSource sound;

        Overheard(SampleSource sound) {
            this.sound = sound;
        }

        @Override
        public int channels() {
            return sound.channels();
        }

        @Override
        public int sampleRate() {
            return sound.sampleRate();
        }

        @Override
        public int read(float[][] into, int offset, int frames) throws IOException {
            int read = sound.read(into, offset, frames);
            for (int c = 0; c < ahead.length; c++) {
                if (waiting + read > ahead[c].length) {
                    ahead[c] = Arrays.copyOf(ahead[c], Math.max(2 * ahead[c].length, waiting + read));
                }
                System.arraycopy(into[c], offset, ahead[c], waiting, read);
            }
            waiting += read;
            return read;
        }

        @Override
        public void close() throws IOException {
            sound.close();
        }
    }
}

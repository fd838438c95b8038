package org.mellowclass.core.sound;

import java.io.IOException;

/** No more than the first frames of a sound. */
public class Start implements SampleSource {

    private final SampleSource sound;
    private long left;

    public Start(SampleSource sound, long frames) {
        this.sound = sound;
        this.left = frames;
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
        int read = left == 0 ? 0 : sound.read(into, offset, (int) Math.min(frames, left));
        left -= read;
        return read;
    }

    @Override
    public void close() throws IOException {
        sound.close();
    }
}

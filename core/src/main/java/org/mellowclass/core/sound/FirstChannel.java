package org.mellowclass.core.sound;

import java.io.IOException;

/** The first channel of a sound, of which the others are the same. */
public final class FirstChannel implements SampleSource {

    private final SampleSource sound;
    private float[][] block = new float[0][];

    public FirstChannel(SampleSource sound) {
        this.sound = sound;
    }

    @Override
    public int channels() {
        return 1;
    }

    @Override
    public int sampleRate() {
        return sound.sampleRate();
    }

    @Override
    public int read(float[][] into, int offset, int frames) throws IOException {
        if (block.length == 0 || block[0].length < frames) {
            block = new float[sound.channels()][frames];
        }
        int read = sound.read(block, 0, frames);
        System.arraycopy(block[0], 0, into[0], offset, Math.max(0, read));
        return read;
    }

    @Override
    public void close() throws IOException {
        sound.close();
    }
}

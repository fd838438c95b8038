package org.mellowclass.app.sounds;

import java.io.IOException;

import org.mellowclass.app.store.Held;
import org.mellowclass.core.sound.RandomAccessSound;

/** A sound whose file is held as long as it is open. */
record HeldSound(RandomAccessSound sound, Held held) implements RandomAccessSound {

    @Override
    public int channels() {
        return sound.channels();
    }

    @Override
    public long frames() {
        return sound.frames();
    }

    @Override
    public void readAt(long fromFrame, float[][] into, int offset, int frames) throws IOException {
        sound.readAt(fromFrame, into, offset, frames);
    }

    @Override
    public void close() throws IOException {
        try (held) {
            sound.close();
        }
    }
}

package org.mellowclass.core.sound;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/** Signed 16 bit samples, little-endian, interleaved: what microphones send and what the bench plays. */
public final class Pcm16 {

    private Pcm16() {
    }

    /** The nearest 16 bit value; what lies beyond full scale is held at full scale. */
    public static short of(float sample) {
        int rounded = Math.round(sample * 32767f);
        return (short) Math.max(-32768, Math.min(32767, rounded));
    }

    /** {@code frames} frames of {@code block[channel][0 …]}, interleaved. */
    public static byte[] interleaved(float[][] block, int frames) {
        ByteBuffer bytes = ByteBuffer.allocate(frames * block.length * 2).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < frames; i++) {
            for (float[] channel : block) {
                bytes.putShort(of(channel[i]));
            }
        }
        return bytes.array();
    }
}

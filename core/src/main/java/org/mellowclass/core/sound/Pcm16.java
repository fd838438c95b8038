package org.mellowclass.core.sound;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/** Signed 16 bit samples, little-endian, interleaved: what microphones send and what the bench plays. */
public final class Pcm16 {

    private Pcm16() {
    }

    /** What one step is as a float; a sample that came as 16 bits goes as the same 16 bits. */
    static final float STEP = 1f / 32768;

    /** Added to a float, it leaves no bit for a fraction: the sum is rounded, and its low bits are the whole number. */
    private static final float WHOLE = 1.5f * (1 << 23);

    /** The nearest 16 bit value; what lies beyond full scale is held at full scale. */
    public static short of(float sample) {
        float scaled = sample * 32768f;
        if (scaled > 32767f) {
            return 32767;
        }
        if (!(scaled >= -32768f)) {
            return -32768;
        }
        return (short) Float.floatToRawIntBits(scaled + WHOLE);
    }

    /** {@code frames} frames of {@code block[channel][0 …]}, interleaved. */
    public static byte[] interleaved(float[][] block, int frames) {
        ByteBuffer bytes = ByteBuffer.allocate(2 * block.length * frames).order(ByteOrder.LITTLE_ENDIAN);
        new Interleaving().interleave(block, frames, bytes);
        return bytes.array();
    }

    /** Interleaves block after block, for one thread: its arrays are used again and again. */
    static final class Interleaving {

        private float[] left = new float[0];
        private float[] right = new float[0];
        private int[] pairs = new int[0];
        private short[] samples = new short[0];

        /** Into a little-endian buffer with room for them; its position stays. */
        void interleave(float[][] block, int frames, ByteBuffer into) {
            if (block.length == 2) {
                interleavePairs(block, frames, into);
                return;
            }
            int count = frames * block.length;
            samples = samples.length < count ? new short[count] : samples;
            for (int c = 0; c < block.length; c++) {
                for (int i = 0; i < frames; i++) {
                    samples[i * block.length + c] = of(block[c][i]);
                }
            }
            into.asShortBuffer().put(samples, 0, count);
        }

        /** Most sounds: in loops without a branch, which the compiler does several at a time, and a store for each frame. */
        private void interleavePairs(float[][] block, int frames, ByteBuffer into) {
            if (pairs.length < frames) {
                left = new float[frames];
                right = new float[frames];
                pairs = new int[frames];
            }
            whole(block[0], frames, left);
            whole(block[1], frames, right);
            for (int i = 0; i < frames; i++) {
                pairs[i] = Float.floatToRawIntBits(left[i]) & 0xFFFF | Float.floatToRawIntBits(right[i]) << 16;
            }
            into.asIntBuffer().put(pairs, 0, frames);
        }

        /** Samples as {@link Pcm16#of} has them, in the low bits of floats. */
        private static void whole(float[] samples, int frames, float[] into) {
            for (int i = 0; i < frames; i++) {
                into[i] = Math.max(-32768f, Math.min(32767f, samples[i] * 32768f)) + WHOLE;
            }
        }
    }

    /** The largest amplitude of little-endian 16-bit samples, from 0 to 1. */
    public static double peak(byte[] pcm) {
        int peak = 0;
        for (int i = 0; i + 1 < pcm.length; i += 2) {
            peak = Math.max(peak, Math.abs((short) (pcm[i] & 0xFF | pcm[i + 1] << 8)));
        }
        return peak / 32768.0;
    }

    /** Interleaved little-endian 16-bit samples as a sound. */
    public static SampleSource source(byte[] pcm, int channels, int sampleRate) {
        return new SampleSource() {
            private int at;

            @Override
            public int channels() {
                return channels;
            }

            @Override
            public int sampleRate() {
                return sampleRate;
            }

            @Override
            public int read(float[][] into, int offset, int frames) {
                int count = Math.min(frames, (pcm.length - at) / (2 * channels));
                for (int i = 0; i < count; i++) {
                    for (int c = 0; c < channels; c++, at += 2) {
                        into[c][offset + i] = (short) (pcm[at] & 0xFF | pcm[at + 1] << 8) / 32768f;
                    }
                }
                return count;
            }

            @Override
            public void close() {
                // nothing is open
            }
        };
    }
}

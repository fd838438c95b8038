package org.mellowclass.core.sound;

import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;

/**
 * Reads the WAV files that {@link WavWriter} writes: RIFF with 16 bit PCM or 32 bit float samples. Files of people go
 * through the media module instead, which judges them by their content.
 *
 * <p>Reads from any position, for one thread: its buffers are used again and again.
 */
public final class WavReader implements SampleSource, RandomAccessSound {

    private static final int FIRST_BUFFER_BYTES = 4096;

    private static final float LOUDEST = 64;

    private final FileChannel channel;
    private final SampleFormat format;
    private final int channels;
    private final int sampleRate;
    private final long dataStart;
    private final long frames;
    private long position;
    private ByteBuffer buffer = ByteBuffer.allocateDirect(FIRST_BUFFER_BYTES).order(ByteOrder.LITTLE_ENDIAN);
    private short[] shorts = new short[0];
    private float[] floats = new float[0];

    private WavReader(FileChannel channel) throws IOException {
        this.channel = channel;
        ByteBuffer head = bytesAt(0, 12);
        if (head.getInt(0) != WavWriter.RIFF || head.getInt(8) != WavWriter.WAVE) {
            throw new IOException("not a RIFF WAVE file");
        }
        SampleFormat found = null;
        int channelCount = 0;
        int rate = 0;
        long at = 12;
        while (true) {
            ByteBuffer chunk = bytesAt(at, 8);
            int id = chunk.getInt(0);
            long size = Integer.toUnsignedLong(chunk.getInt(4));
            if (id == WavWriter.FMT) {
                ByteBuffer fmt = bytesAt(at + 8, 16);
                found = SampleFormat.of(fmt.getShort(0), fmt.getShort(14));
                channelCount = fmt.getShort(2);
                rate = fmt.getInt(4);
            } else if (id == WavWriter.DATA) {
                if (found == null) {
                    throw new IOException("WAV data without a format before it");
                }
                this.format = found;
                this.channels = channelCount;
                this.sampleRate = rate;
                this.dataStart = at + 8;
                this.frames = Math.min(size, channel.size() - dataStart) / bytesAFrame();
                return;
            }
            at += 8 + size + (size & 1);
        }
    }

    /** Opens a file; the caller closes the reader. */
    public static WavReader open(Path file) throws IOException {
        FileChannel channel = FileChannel.open(file, StandardOpenOption.READ);
        try {
            return new WavReader(channel);
        } catch (IOException | RuntimeException e) {
            channel.close();
            throw e;
        }
    }

    @Override
    public int channels() {
        return channels;
    }

    @Override
    public int sampleRate() {
        return sampleRate;
    }

    @Override
    public long frames() {
        return frames;
    }

    @Override
    public int read(float[][] into, int offset, int wanted) throws IOException {
        int count = (int) Math.min(wanted, frames - position);
        if (count > 0) {
            readAt(position, into, offset, count);
            position += count;
        }
        return count;
    }

    @Override
    public void readAt(long fromFrame, float[][] into, int offset, int wanted) throws IOException {
        long first = Math.max(0, Math.min(fromFrame, frames));
        long end = Math.max(first, Math.min(fromFrame + wanted, frames));
        int before = (int) Math.min(wanted, Math.max(0, -fromFrame));
        int count = (int) (end - first);
        for (int c = 0; c < channels; c++) {
            Arrays.fill(into[c], offset, offset + before, 0f);
            Arrays.fill(into[c], offset + before + count, offset + wanted, 0f);
        }
        if (count == 0) {
            return;
        }
        ByteBuffer bytes = bytesAt(dataStart + first * bytesAFrame(), count * bytesAFrame());
        int at = offset + before;
        int samples = count * channels;
        if (format == SampleFormat.FLOAT_32) {
            floats = floats.length < samples ? new float[samples] : floats;
            bytes.asFloatBuffer().get(floats, 0, samples);
            for (int c = 0; c < channels; c++) {
                float[] channelSamples = into[c];
                for (int i = 0, from = c; i < count; i++, from += channels) {
                    channelSamples[at + i] = bounded(floats[from]);
                }
            }
        } else {
            shorts = shorts.length < samples ? new short[samples] : shorts;
            bytes.asShortBuffer().get(shorts, 0, samples);
            if (channels == 1) {
                mono(into[0], at, count);
                return;
            }
            if (channels == 2) {
                stereo(into[0], into[1], at, count);
                return;
            }
            for (int c = 0; c < channels; c++) {
                float[] channelSamples = into[c];
                for (int i = 0, from = c; i < count; i++, from += channels) {
                    channelSamples[at + i] = shorts[from] * Pcm16.STEP;
                }
            }
        }
    }

    /** A file may say anything: what is no number is silence, and nothing is louder than +36 dBFS. */
    private static float bounded(float sample) {
        return sample != sample ? 0 : Math.max(-LOUDEST, Math.min(LOUDEST, sample));
    }

    // one and two channels, which nearly all sounds have, in loops that the compiler can unroll

    private void mono(float[] samples, int at, int count) {
        for (int i = 0; i < count; i++) {
            samples[at + i] = shorts[i] * Pcm16.STEP;
        }
    }

    private void stereo(float[] left, float[] right, int at, int count) {
        for (int i = 0; i < count; i++) {
            left[at + i] = shorts[2 * i] * Pcm16.STEP;
            right[at + i] = shorts[2 * i + 1] * Pcm16.STEP;
        }
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }

    private int bytesAFrame() {
        return channels * format.bytes();
    }

    private ByteBuffer bytesAt(long at, int count) throws IOException {
        if (buffer.capacity() < count) {
            buffer = ByteBuffer.allocateDirect(count).order(ByteOrder.LITTLE_ENDIAN);
        }
        buffer.clear().limit(count);
        while (buffer.hasRemaining()) {
            if (channel.read(buffer, at + buffer.position()) < 0) {
                throw new EOFException("the WAV file ends early");
            }
        }
        return buffer.flip();
    }
}

package org.mellowclass.core.sound;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** Writes a WAV file as it comes; the header gets its lengths when the writer is closed. At most 4 GiB of samples. */
public final class WavWriter implements SampleSink, Closeable {

    static final int RIFF = 0x46464952;
    static final int WAVE = 0x45564157;
    static final int FMT = 0x20746d66;
    static final int DATA = 0x61746164;

    /** How long the header is that this class writes. */
    public static final int HEADER_BYTES = 44;
    private static final long MOST_BYTES = 0xFFFF_FFFFL - HEADER_BYTES;

    private final FileChannel channel;
    private final int channels;
    private final int sampleRate;
    private final SampleFormat format;
    private long bytes;
    private ByteBuffer buffer = ByteBuffer.allocate(0);
    private float[] floats = new float[0];
    private final Pcm16.Interleaving interleaving = new Pcm16.Interleaving();

    private WavWriter(FileChannel channel, int channels, int sampleRate, SampleFormat format) {
        this.channel = channel;
        this.channels = channels;
        this.sampleRate = sampleRate;
        this.format = format;
    }

    /** Creates or replaces a file. */
    public static WavWriter create(Path file, int channels, int sampleRate, SampleFormat format) throws IOException {
        FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING,
                StandardOpenOption.WRITE);
        channel.position(HEADER_BYTES);
        return new WavWriter(channel, channels, sampleRate, format);
    }

    @Override
    public void accept(float[][] block, int frames) throws IOException {
        int size = frames * channels * format.bytes();
        if (bytes + size > MOST_BYTES) {
            throw new IOException("a WAV file holds at most 4 GiB");
        }
        if (buffer.capacity() < size) {
            buffer = ByteBuffer.allocateDirect(size).order(ByteOrder.LITTLE_ENDIAN);
        }
        buffer.clear().limit(size);
        int samples = frames * channels;
        if (format == SampleFormat.FLOAT_32) {
            floats = floats.length < samples ? new float[samples] : floats;
            for (int c = 0; c < channels; c++) {
                float[] channelSamples = block[c];
                for (int i = 0, to = c; i < frames; i++, to += channels) {
                    floats[to] = channelSamples[i];
                }
            }
            buffer.asFloatBuffer().put(floats, 0, samples);
        } else {
            interleaving.interleave(block, frames, buffer);
        }
        while (buffer.hasRemaining()) {
            channel.write(buffer);
        }
        bytes += size;
    }

    @Override
    public void close() throws IOException {
        try (channel) {
            writeHeader(channel, channels, sampleRate, format, bytes);
            channel.force(true);
        }
    }

    /** Writes the header of a file whose samples stand behind its first {@link #HEADER_BYTES}. */
    public static void writeHeader(FileChannel channel, int channels, int sampleRate, SampleFormat format, long bytes) throws IOException {
        ByteBuffer head = ByteBuffer.allocate(HEADER_BYTES).order(ByteOrder.LITTLE_ENDIAN);
        putHeader(head, channels, sampleRate, format, bytes);
        channel.write(head.flip(), 0);
    }

    /** A short sound at 48 kHz as a whole file of 16 bits, in memory; {@code samples[channel][frame]}. */
    public static byte[] bytesOf(float[][] samples) {
        int frames = samples[0].length;
        byte[] pcm = Pcm16.interleaved(samples, frames);
        ByteBuffer file = ByteBuffer.allocate(HEADER_BYTES + pcm.length).order(ByteOrder.LITTLE_ENDIAN);
        putHeader(file, samples.length, Frames.RATE, SampleFormat.PCM_16, pcm.length);
        return file.put(pcm).array();
    }

    private static void putHeader(ByteBuffer head, int channels, int sampleRate, SampleFormat format, long bytes) {
        int frameBytes = channels * format.bytes();
        head.putInt(RIFF).putInt((int) (HEADER_BYTES - 8 + bytes)).putInt(WAVE);
        head.putInt(FMT).putInt(16).putShort((short) format.tag()).putShort((short) channels);
        head.putInt(sampleRate).putInt(sampleRate * frameBytes);
        head.putShort((short) frameBytes).putShort((short) format.bits());
        head.putInt(DATA).putInt((int) bytes);
    }
}

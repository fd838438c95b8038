package org.mellowclass.app.cleanup;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.core.sound.RandomAccessSound;
import org.springframework.core.io.AbstractResource;

/** What was removed from a sound, as a WAV file of 16 bits that is made while it is read: the first channel before, without that after. */
final class Difference extends AbstractResource {

    /** Opens one of both sounds. */
    @FunctionalInterface
    interface Opening {
        RandomAccessSound open() throws IOException;
    }

    private static final int HEADER = 44;
    private static final int BLOCK = 4096;

    private final Opening before;
    private final Opening after;
    private final long frames;

    Difference(Opening before, Opening after, long frames) {
        this.before = before;
        this.after = after;
        this.frames = frames;
    }

    @Override
    public long contentLength() {
        return HEADER + Short.BYTES * frames;
    }

    @Override
    public String getDescription() {
        return "what was removed";
    }

    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(this);
    }

    @Override
    public InputStream getInputStream() throws IOException {
        RandomAccessSound was = before.open();
        try {
            return new Made(was, after.open());
        } catch (IOException | RuntimeException failed) {
            was.close();
            throw failed;
        }
    }

    private byte[] header() {
        int bytes = (int) Math.min(Integer.MAX_VALUE - HEADER, Short.BYTES * frames);
        return ByteBuffer.allocate(HEADER).order(ByteOrder.LITTLE_ENDIAN).put("RIFF".getBytes(StandardCharsets.US_ASCII)).putInt(36 + bytes)
                .put("WAVEfmt ".getBytes(StandardCharsets.US_ASCII)).putInt(16).putShort((short) 1).putShort((short) 1).putInt(Frames.RATE)
                .putInt(Frames.RATE * Short.BYTES).putShort((short) Short.BYTES).putShort((short) Short.SIZE)
                .put("data".getBytes(StandardCharsets.US_ASCII)).putInt(bytes).array();
    }

    private final class Made extends InputStream {

        private final RandomAccessSound was;
        private final RandomAccessSound is;
        private final byte[] header = header();
        private final float[][] wasBlock;
        private final float[][] isBlock;
        private long position;

        Made(RandomAccessSound was, RandomAccessSound is) {
            this.was = was;
            this.is = is;
            wasBlock = new float[was.channels()][BLOCK];
            isBlock = new float[is.channels()][BLOCK];
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] into, int offset, int length) throws IOException {
            if (position >= contentLength()) {
                return -1;
            }
            if (position < HEADER) {
                int count = (int) Math.min(length, HEADER - position);
                System.arraycopy(header, (int) position, into, offset, count);
                position += count;
                return count;
            }
            long frame = (position - HEADER) / Short.BYTES;
            int within = (int) ((position - HEADER) % Short.BYTES);
            int count = (int) Math.min(Math.min(BLOCK, frames - frame), (length + within + 1) / Short.BYTES);
            was.readAt(frame, wasBlock, 0, count);
            is.readAt(frame, isBlock, 0, count);
            ByteBuffer bytes = ByteBuffer.allocate(count * Short.BYTES).order(ByteOrder.LITTLE_ENDIAN);
            for (int i = 0; i < count; i++) {
                bytes.putShort(Pcm16.of(wasBlock[0][i] - isBlock[0][i]));
            }
            int given = Math.min(length, bytes.capacity() - within);
            System.arraycopy(bytes.array(), within, into, offset, given);
            position += given;
            return given;
        }

        @Override
        public long skip(long count) {
            long skipped = Math.max(0, Math.min(count, contentLength() - position));
            position += skipped;
            return skipped;
        }

        @Override
        public void close() throws IOException {
            was.close();
            is.close();
        }
    }
}

package org.mellowclass.media;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;

/**
 * Reads a file while a child process writes it, to its end. A pipe would wake both sides up for every few thousand samples,
 * which costs more than the decoding. What has been read is brought to the disk now and then, so that the end need not wait.
 */
final class GrowingFile extends InputStream {

    private static final long LOOK_AGAIN_MS = 20;
    private static final long SYNC_BYTES = 64L << 20;

    private final FileChannel file;
    private final ChildProcess writer;
    private long position;
    private long synced;

    GrowingFile(FileChannel file, long from, ChildProcess writer) {
        this.file = file;
        this.position = from;
        this.writer = writer;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : Byte.toUnsignedInt(one[0]);
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
        boolean ended = false;
        while (true) {
            int read = file.read(ByteBuffer.wrap(into, offset, length), position);
            if (read > 0) {
                position += read;
                sync();
                return read;
            }
            if (ended) {
                return -1;
            }
            // what was written before it ended is there now: one more look
            ended = writer.ended(LOOK_AGAIN_MS);
        }
    }

    private void sync() throws IOException {
        if (position - synced >= SYNC_BYTES) {
            synced = position;
            file.force(false);
        }
    }
}

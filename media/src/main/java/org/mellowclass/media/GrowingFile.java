package org.mellowclass.media;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.ReadableByteChannel;

/**
 * Reads a file while a child process writes it, to its end. A pipe would wake both sides up for every few thousand samples,
 * which costs more than the decoding.
 */
final class GrowingFile implements ReadableByteChannel {

    private static final long LOOK_AGAIN_MS = 20;

    private final FileChannel file;
    private final ChildProcess writer;
    private long position;

    GrowingFile(FileChannel file, long from, ChildProcess writer) {
        this.file = file;
        this.position = from;
        this.writer = writer;
    }

    @Override
    public int read(ByteBuffer into) throws IOException {
        boolean ended = false;
        while (true) {
            int read = file.read(into, position);
            if (read > 0) {
                position += read;
                return read;
            }
            if (ended) {
                return -1;
            }
            // what was written before it ended is there now: one more look
            ended = writer.ended(LOOK_AGAIN_MS);
        }
    }

    @Override
    public boolean isOpen() {
        return file.isOpen();
    }

    @Override
    public void close() throws IOException {
        file.close();
    }
}

package org.mellowclass.media;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Reads around odd chunks of WAV files (RIFF WAVE; Microsoft and IBM, "Multimedia Programming Interface and Data Specifications 1.0", 1991):
 * of a file that a decoder refuses because of a chunk that is too short, or whose length is wrong, the format and the samples are kept.
 */
public final class PlainWav {

    private static final int RIFF = id("RIFF");
    private static final int WAVE = id("WAVE");
    private static final int FORMAT = id("fmt ");
    private static final int DATA = id("data");
    private static final int HEADER = 12;
    private static final int LONGEST_FORMAT = 64;
    /** How far the two chunks are looked for, once a length has led astray. */
    private static final long SEARCHED = 4L << 20;
    private static final long MOST_CHUNKS = 1000;

    private PlainWav() {
    }

    private static int id(String name) {
        return name.charAt(0) | name.charAt(1) << 8 | name.charAt(2) << 16 | name.charAt(3) << 24;
    }

    /** Where a chunk's content is; {@code size} as it says itself. */
    private record Chunk(long at, long size) {
    }

    /**
     * Writes a file with the format and the samples of another one, and nothing else.
     *
     * @param target gets the file
     * @return false if it is no WAV file, or has not got both
     */
    public static boolean write(Path wav, Path target) throws IOException {
        try (FileChannel in = FileChannel.open(wav, StandardOpenOption.READ)) {
            ByteBuffer head = bytes(in, 0, HEADER);
            if (head.remaining() < HEADER || head.getInt(0) != RIFF || head.getInt(8) != WAVE) {
                return false;
            }
            Chunk format = find(in, FORMAT, HEADER);
            Chunk data = format == null || format.size < 16 || format.size > LONGEST_FORMAT ? null : find(in, DATA, format.at + format.size);
            if (data == null) {
                return false;
            }
            long samples = Math.min(data.size, in.size() - data.at);
            try (FileChannel out = FileChannel.open(target, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING, StandardOpenOption.WRITE)) {
                ByteBuffer begin = ByteBuffer.allocate((int) (HEADER + 8 + format.size + 8)).order(ByteOrder.LITTLE_ENDIAN);
                begin.putInt(RIFF).putInt((int) (begin.capacity() - 8 + samples)).putInt(WAVE).putInt(FORMAT).putInt((int) format.size);
                begin.put(bytes(in, format.at, (int) format.size)).putInt(DATA).putInt((int) samples).flip();
                out.write(begin);
                for (long done = 0; done < samples; ) {
                    done += in.transferTo(data.at + done, samples - done, out);
                }
            }
            return samples > 0;
        }
    }

    /** By the lengths that chunks say, as long as they lead to chunks; then byte by byte. */
    private static Chunk find(FileChannel in, int wanted, long from) throws IOException {
        long at = from;
        for (int i = 0; i < MOST_CHUNKS; i++) {
            ByteBuffer head = bytes(in, at, 8);
            if (head.remaining() < 8 || !isName(head.getInt(0))) {
                break;
            }
            Chunk chunk = new Chunk(at + 8, Integer.toUnsignedLong(head.getInt(4)));
            if (head.getInt(0) == wanted) {
                return chunk;
            }
            at = chunk.at + chunk.size + (chunk.size & 1);
        }
        ByteBuffer searched = bytes(in, from, (int) Math.min(SEARCHED, Math.max(0, in.size() - from)));
        for (int i = 0; i + 8 <= searched.limit(); i++) {
            if (searched.getInt(i) == wanted) {
                return new Chunk(from + i + 8, Integer.toUnsignedLong(searched.getInt(i + 4)));
            }
        }
        return null;
    }

    private static boolean isName(int id) {
        for (int shift = 0; shift < 32; shift += 8) {
            int letter = id >> shift & 0xFF;
            if (letter < 0x20 || letter > 0x7E) {
                return false;
            }
        }
        return true;
    }

    private static ByteBuffer bytes(FileChannel in, long at, int count) throws IOException {
        ByteBuffer bytes = ByteBuffer.allocate(count).order(ByteOrder.LITTLE_ENDIAN);
        while (bytes.hasRemaining() && in.read(bytes, at + bytes.position()) > 0) {
            // until it is full, or the file ends
        }
        return bytes.flip();
    }
}

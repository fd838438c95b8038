package org.mellowclass.app.store;

import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;

import org.mellowclass.core.measure.Skyline;

/**
 * Skyline data on disk: the levels one after the other, finest first, two bytes a bin. Where a level starts follows from
 * the length of the sound.
 */
public final class SkylineFile {

    private SkylineFile() {
    }

    public static void write(Skyline skyline, Path file) throws IOException {
        try (OutputStream out = Files.newOutputStream(file)) {
            for (int level = 0; level < Skyline.FRAMES_A_BIN.length; level++) {
                out.write(skyline.bins(level));
            }
        }
    }

    /** How many bins a level of a sound of so many frames has. */
    public static long bins(int level, long soundFrames) {
        int frames = Skyline.FRAMES_A_BIN[level];
        return (soundFrames + frames - 1) / frames;
    }

    /** All of a sound, at the coarsest level that has so many bins or at the finest. */
    public static byte[] readWhole(Path file, long soundFrames, int leastBins) throws IOException {
        int level = Skyline.FRAMES_A_BIN.length - 1;
        while (level > 0 && bins(level, soundFrames) < leastBins) {
            level--;
        }
        return read(file, level, soundFrames, 0, Math.toIntExact(bins(level, soundFrames)));
    }

    /** Up to {@code count} bins of a level from {@code firstBin} on: fewer at the end, none behind it. */
    public static byte[] read(Path file, int level, long soundFrames, long firstBin, int count) throws IOException {
        long before = 0;
        for (int finer = 0; finer < level; finer++) {
            before += bins(finer, soundFrames);
        }
        int available = (int) Math.max(0, Math.min(count, bins(level, soundFrames) - firstBin));
        byte[] bytes = new byte[2 * available];
        try (RandomAccessFile access = new RandomAccessFile(file.toFile(), "r")) {
            access.seek(2 * (before + Math.min(firstBin, bins(level, soundFrames))));
            access.readFully(bytes);
        }
        return bytes;
    }
}

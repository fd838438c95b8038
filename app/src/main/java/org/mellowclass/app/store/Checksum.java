package org.mellowclass.app.store;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/**
 * SHA-256 (FIPS 180-4) of a file, kept beside it as {@code sha256sum} writes it, so that {@code sha256sum -c} can look at a store
 * without this application.
 */
final class Checksum {

    static final String SUFFIX = ".sha256";

    private static final int BUFFER_BYTES = 1 << 16;

    private Checksum() {
    }

    static Path besides(Path file) {
        return file.resolveSibling(file.getFileName() + SUFFIX);
    }

    static String of(Path file) throws IOException {
        MessageDigest digest;
        try {
            digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
        byte[] buffer = new byte[BUFFER_BYTES];
        try (InputStream in = Files.newInputStream(file)) {
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                digest.update(buffer, 0, read);
            }
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    /** Writes a checksum beside the place where its file will be or is. */
    static void write(Path file, String checksum) throws IOException {
        Path beside = besides(file);
        Files.createDirectories(beside.getParent());
        Files.writeString(beside, checksum + "  " + file.getFileName() + "\n");
        KeyedFolder.sync(beside);
    }

    /** Whether a file is what its checksum says; true for one of before there were checksums. */
    static boolean fits(Path file) throws IOException {
        Path beside = besides(file);
        return !Files.exists(beside) || Files.readString(beside).startsWith(of(file));
    }
}

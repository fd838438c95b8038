package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.regex.Pattern;

/** Files under random keys in a folder: {@code ab/abcdef…}. */
final class KeyedFolder {

    private static final Pattern KEY = Pattern.compile("[0-9a-f]{32}");

    private final Path folder;

    KeyedFolder(Path folder) throws IOException {
        this.folder = Files.createDirectories(folder);
    }

    Path folder() {
        return folder;
    }

    /** Where the file of a key is or would be. */
    Path path(String key) {
        if (!KEY.matcher(key).matches()) {
            throw new IllegalArgumentException("not a key of the sound store");
        }
        return folder.resolve(key.substring(0, 2)).resolve(key);
    }

    Path existing(String key) throws IOException {
        Path file = path(key);
        if (!Files.exists(file)) {
            throw new NoSuchFileException("sound " + key);
        }
        return file;
    }

    /** Moves a file to its key, in one step. */
    Path moveIn(Path finished, String key) throws IOException {
        Path target = path(key);
        Files.createDirectories(target.getParent());
        return Files.move(finished, target, StandardCopyOption.ATOMIC_MOVE);
    }

    /** What is in a file is on the disk. */
    static void sync(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
    }

    /** A file is on the disk when its folder's entry is, and its folder's own. */
    static void syncEntry(Path file) throws IOException {
        for (Path parent = file.getParent(); parent != null && !parent.equals(file.getParent().getParent().getParent()); parent = parent.getParent()) {
            try (FileChannel channel = FileChannel.open(parent, StandardOpenOption.READ)) {
                channel.force(true);
            }
        }
    }
}

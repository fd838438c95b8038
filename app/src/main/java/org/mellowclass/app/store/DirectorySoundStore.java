package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;

import org.mellowclass.app.MellowProperties;
import org.springframework.stereotype.Component;

/** A store in a folder: {@code sounds/ab/abcdef…}; work on its way lies in {@code arriving/}. */
@Component
class DirectorySoundStore implements SoundStore, Scratch {

    private static final Pattern KEY = Pattern.compile("[0-9a-f]{32}");

    private final Path sounds;
    private final Path arriving;

    DirectorySoundStore(MellowProperties properties) throws IOException {
        Path folder = properties.folder().toAbsolutePath();
        sounds = Files.createDirectories(folder.resolve("sounds"));
        arriving = Files.createDirectories(folder.resolve("arriving"));
    }

    /** Beside the store, so that moving a file into it is one step. */
    @Override
    public Path scratchFile(String suffix) throws IOException {
        return Files.createTempFile(arriving, "work", suffix);
    }

    @Override
    public String put(Path finished) throws IOException {
        sync(finished);
        return putUnsynced(finished);
    }

    @Override
    public String putUnsynced(Path finished) throws IOException {
        String key = RandomKey.next();
        Path target = path(key);
        Files.createDirectories(target.getParent());
        Files.move(finished, target, StandardCopyOption.ATOMIC_MOVE);
        return key;
    }

    @Override
    public void sync(String key) throws IOException {
        sync(file(key));
    }

    private static void sync(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
    }

    @Override
    public Path file(String key) throws IOException {
        Path file = path(key);
        if (!Files.exists(file)) {
            throw new NoSuchFileException("sound " + key);
        }
        return file;
    }

    @Override
    public void delete(String key) throws IOException {
        Files.deleteIfExists(path(key));
    }

    @Override
    public int sweep(Set<String> keep, Instant writtenBefore) throws IOException {
        int deleted = 0;
        for (Path folder : List.of(sounds, arriving)) {
            try (Stream<Path> files = Files.walk(folder).filter(Files::isRegularFile)) {
                for (Path file : (Iterable<Path>) files::iterator) {
                    boolean old = Files.getLastModifiedTime(file).toInstant().isBefore(writtenBefore);
                    if (old && !keep.contains(file.getFileName().toString()) && Files.deleteIfExists(file)) {
                        deleted++;
                    }
                }
            }
        }
        return deleted;
    }

    private Path path(String key) {
        if (!KEY.matcher(key).matches()) {
            throw new IllegalArgumentException("not a key of the sound store");
        }
        return sounds.resolve(key.substring(0, 2)).resolve(key);
    }
}

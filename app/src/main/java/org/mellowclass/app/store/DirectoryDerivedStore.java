package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

import org.mellowclass.app.MellowProperties;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.stereotype.Component;

/** A cache in the folder {@code derived/}; when a file was used last is its time of last change. */
@Component
class DirectoryDerivedStore implements DerivedStore {

    private final KeyedFolder derived;
    private final Clock clock;

    DirectoryDerivedStore(MellowProperties properties, Clock clock) throws IOException {
        derived = new KeyedFolder(properties.folder().toAbsolutePath().resolve("derived"));
        this.clock = clock;
    }

    @Override
    public String put(Path finished) throws IOException {
        KeyedFolder.sync(finished);
        String key = RandomKey.next();
        used(derived.moveIn(finished, key));
        return key;
    }

    @Override
    public Held hold(String key) throws IOException {
        return new Held(used(derived.existing(key)), () -> { });
    }

    @Override
    public Resource stream(String key) throws IOException {
        return new FileSystemResource(used(derived.existing(key)));
    }

    private Path used(Path file) throws IOException {
        return Files.setLastModifiedTime(file, FileTime.from(clock.instant()));
    }

    @Override
    public void delete(String key) throws IOException {
        Files.deleteIfExists(derived.path(key));
    }

    private record Entry(Path file, BasicFileAttributes attributes) {
    }

    @Override
    public int evict(long mostBytes) throws IOException {
        List<Entry> entries = new ArrayList<>();
        try (Stream<Path> files = Files.walk(derived.folder()).filter(Files::isRegularFile)) {
            for (Path file : (Iterable<Path>) files::iterator) {
                entries.add(new Entry(file, Files.readAttributes(file, BasicFileAttributes.class)));
            }
        }
        entries.sort(Comparator.comparing(entry -> entry.attributes().lastModifiedTime()));
        long bytes = entries.stream().mapToLong(entry -> entry.attributes().size()).sum();
        int evicted = 0;
        for (Entry entry : entries) {
            if (bytes <= mostBytes) {
                break;
            }
            Files.deleteIfExists(entry.file());
            bytes -= entry.attributes().size();
            evicted++;
        }
        return evicted;
    }
}

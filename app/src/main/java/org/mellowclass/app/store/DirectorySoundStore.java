package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

import org.mellowclass.app.MellowProperties;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.stereotype.Component;

/**
 * A store in a folder: {@code sounds/ab/abcdef…} with checksums beside the files; work on its way lies in {@code arriving/}, and what was
 * swept in {@code bin/}.
 */
@Component
class DirectorySoundStore implements SoundStore, Scratch {

    private static final String PART = ".part";
    /** So few files are swept without a question. */
    private static final int FEW = 20;
    /** A larger share than this is a mistake. */
    private static final double SMALL_SHARE = 0.1;

    private final KeyedFolder sounds;
    private final Path arriving;
    private final Path bin;

    DirectorySoundStore(MellowProperties properties) throws IOException {
        Path folder = properties.folder().toAbsolutePath();
        sounds = new KeyedFolder(folder.resolve("sounds"));
        arriving = Files.createDirectories(folder.resolve("arriving"));
        for (Path left : filesIn(arriving)) {
            if (!left.toString().endsWith(PART)) {
                Files.delete(left);
            }
        }
        bin = Files.createDirectories(folder.resolve("bin"));
    }

    /** Beside the store, so that moving a file into it is one step. */
    @Override
    public Path scratchFile(Owner owner, String suffix) throws IOException {
        return Files.createTempFile(arriving, owner.name() + ".", suffix);
    }

    @Override
    public Path partFile() throws IOException {
        return Files.createTempFile(arriving, "upload.", PART);
    }

    @Override
    public void deletePart(String path) throws IOException {
        Path part = Path.of(path);
        if (arriving.equals(part.getParent())) {
            Files.deleteIfExists(part);
        }
    }

    @Override
    public void forget(Owner owner) throws IOException {
        for (Path file : filesIn(arriving)) {
            if (file.getFileName().toString().startsWith(owner.name() + ".")) {
                Files.deleteIfExists(file);
            }
        }
    }

    @Override
    public String put(Path finished) throws IOException {
        KeyedFolder.sync(finished);
        String key = RandomKey.next();
        Checksum.write(sounds.path(key), Checksum.of(finished));
        KeyedFolder.syncEntry(sounds.moveIn(finished, key));
        return key;
    }

    @Override
    public String putUnsettled(Path finished) throws IOException {
        String key = RandomKey.next();
        sounds.moveIn(finished, key);
        return key;
    }

    @Override
    public void settle(String key) throws IOException {
        Path file = sounds.existing(key);
        KeyedFolder.sync(file);
        if (!Files.exists(Checksum.besides(file))) {
            Checksum.write(file, Checksum.of(file));
        }
        KeyedFolder.syncEntry(file);
    }

    @Override
    public Held hold(String key) throws IOException {
        return new Held(sounds.existing(key), () -> { });
    }

    @Override
    public Held holdWhole(String key) throws IOException {
        Held held = hold(key);
        if (!Checksum.fits(held.file())) {
            throw new DamagedFile(key);
        }
        return held;
    }

    @Override
    public long size(String key) throws IOException {
        try {
            return Files.size(sounds.path(key));
        } catch (NoSuchFileException none) {
            return 0;
        }
    }

    @Override
    public Resource stream(String key) throws IOException {
        return new FileSystemResource(sounds.existing(key));
    }

    /** What is erased on purpose is not left in the bin either. */
    @Override
    public void delete(String key) throws IOException {
        Path file = sounds.path(key);
        for (Path each : List.of(file, Checksum.besides(file))) {
            Files.deleteIfExists(each);
            Files.deleteIfExists(bin.resolve(each.getFileName()));
        }
    }

    @Override
    public int sweep(Set<String> keep, Instant writtenBefore, Instant binnedBefore) throws IOException {
        emptyBin(binnedBefore);
        List<Path> unnamed = new ArrayList<>();
        int all = 0;
        for (Path folder : List.of(sounds.folder(), arriving)) {
            for (Path file : filesIn(folder)) {
                all++;
                String key = file.getFileName().toString().replace(Checksum.SUFFIX, "");
                if (!keep.contains(key) && Files.getLastModifiedTime(file).toInstant().isBefore(writtenBefore)) {
                    unnamed.add(file);
                }
            }
        }
        if (!unnamed.isEmpty() && (keep.isEmpty() || unnamed.size() > FEW && unnamed.size() > SMALL_SHARE * all)) {
            throw new SuspiciousSweep(unnamed.size(), all);
        }
        for (Path file : unnamed) {
            Path binned = Files.move(file, bin.resolve(file.getFileName()));
            Files.setLastModifiedTime(binned, FileTime.from(Instant.now()));
        }
        return unnamed.size();
    }

    private void emptyBin(Instant binnedBefore) throws IOException {
        for (Path file : filesIn(bin)) {
            if (Files.getLastModifiedTime(file).toInstant().isBefore(binnedBefore)) {
                Files.deleteIfExists(file);
            }
        }
    }

    private static List<Path> filesIn(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(Files::isRegularFile).toList();
        }
    }
}

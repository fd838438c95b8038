package org.mellowclass.app.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.mellowclass.app.MellowProperties;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionOperations;

/**
 * A store and its database carry one id, and do not start apart: with another database every file would seem to be named by
 * nobody.
 */
@Component
class StoreIdentity {

    static final String FILE = "store-id";

    /** Which database is another's, in plain words. */
    static final class Apart extends IllegalStateException {
        Apart(String words) {
            super(words);
        }
    }

    @Mapper
    interface IdentityMapper {
        @Select("SELECT id FROM store_identity")
        Optional<String> id();

        @Insert("INSERT INTO store_identity (id) VALUES (#{id})")
        void add(String id);
    }

    StoreIdentity(MellowProperties properties, IdentityMapper identity, List<NamedSounds> named, TransactionOperations transaction) {
        transaction.executeWithoutResult(status -> {
            try {
                Path folder = properties.folder().toAbsolutePath();
                check(folder, identity, named);
                close(folder);
            } catch (IOException e) {
                throw new IllegalStateException("the folder of the sound store cannot be used", e);
            }
        });
    }

    private static void check(Path folder, IdentityMapper identity, List<NamedSounds> named) throws IOException {
        Path file = folder.resolve(FILE);
        Optional<String> ofFolder = Files.exists(file) ? Optional.of(Files.readString(file).strip()) : Optional.empty();
        Optional<String> ofDatabase = identity.id();
        if (ofFolder.isPresent() && ofFolder.equals(ofDatabase)) {
            return;
        }
        if (ofFolder.isPresent() && ofDatabase.isPresent()) {
            throw new Apart("The folder " + folder + " belongs to another database than the one that is set. Nothing was touched.");
        }
        boolean foldersSounds = holdsSounds(folder);
        boolean databasesSounds = named.stream().anyMatch(feature -> !feature.keys().isEmpty());
        if (foldersSounds != databasesSounds) {
            throw new Apart(foldersSounds ? "The folder " + folder + " holds sounds of another database than the one that is set. Nothing was touched."
                    : "The database names sounds that are not in the folder " + folder + ". Set the folder that belongs to it. Nothing was touched.");
        }
        if (foldersSounds && (ofFolder.isPresent() || ofDatabase.isPresent())) {
            throw new Apart("Only one of the folder " + folder + " and the database says whose it is. Restore both from one backup.");
        }
        String id = ofDatabase.or(() -> ofFolder).orElseGet(RandomKey::next);
        if (ofDatabase.isEmpty()) {
            identity.add(id);
        }
        Files.createDirectories(folder);
        Files.writeString(file, id + "\n");
    }

    /** Nobody else of this machine comes in, nor the user whom ffmpeg runs as: it reads what is handed to it, and nothing besides. */
    private static void close(Path folder) throws IOException {
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwx------"));
    }

    private static boolean holdsSounds(Path folder) throws IOException {
        Path sounds = folder.resolve("sounds");
        if (!Files.isDirectory(sounds)) {
            return false;
        }
        try (Stream<Path> files = Files.walk(sounds)) {
            return files.anyMatch(Files::isRegularFile);
        }
    }
}

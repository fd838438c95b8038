package org.mellowclass.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.testing.Named;
import org.springframework.transaction.support.TransactionOperations;
import org.springframework.util.unit.DataSize;

/** What happens when an application is started with a folder and a database. */
class StoreIdentityTest {

    @TempDir
    private Path folder;

    /** A database as far as it matters here. */
    private static final class Database implements StoreIdentity.IdentityMapper {
        private String id;
        private Set<String> named = Set.of();

        @Override
        public Optional<String> id() {
            return Optional.ofNullable(id);
        }

        @Override
        public void add(String added) {
            id = added;
        }
    }

    private void start(Database database) {
        new StoreIdentity(new MellowProperties(URI.create("http://school.example"), folder, false, DataSize.ofGigabytes(1),
                new MellowProperties.Room(DataSize.ofMegabytes(1), DataSize.ofGigabytes(1), DataSize.ofGigabytes(1)), null), database, List.of(new Named(database.named)), TransactionOperations.withoutTransaction());
    }

    private void sound() throws IOException {
        Files.createDirectories(folder.resolve("sounds/ab"));
        Files.writeString(folder.resolve("sounds/ab/abc"), "sound");
    }

    @Test
    void a_new_school_gives_both_one_id_and_starts_again_with_it() throws IOException {
        Database database = new Database();
        start(database);
        assertThat(Files.readString(folder.resolve(StoreIdentity.FILE)).strip()).isEqualTo(database.id).hasSize(32);
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(folder))).as("nobody else comes in").isEqualTo("rwx------");
        start(database);
        sound();
        database.named = Set.of("abc");
        start(database);
    }

    @Test
    void a_school_of_before_there_were_ids_gets_one() throws IOException {
        sound();
        Database database = new Database();
        database.named = Set.of("abc");
        start(database);
        assertThat(database.id).isNotNull();
    }

    @Test
    void a_mistyped_database_does_not_start_on_a_folder_of_good_files() throws IOException {
        Database right = new Database();
        start(right);
        sound();
        right.named = Set.of("abc");
        Database fresh = new Database();
        assertThatThrownBy(() -> start(fresh)).hasMessageContaining("of another database");
        Database ofAnother = new Database();
        ofAnother.id = RandomKey.next();
        ofAnother.named = Set.of("def");
        assertThatThrownBy(() -> start(ofAnother)).hasMessageContaining("belongs to another database");
        assertThat(folder.resolve("sounds/ab/abc")).exists();
        start(right);
    }

    @Test
    void a_mistyped_folder_does_not_start_with_a_database_that_names_sounds() throws IOException {
        Database database = new Database();
        database.id = RandomKey.next();
        database.named = Set.of("abc");
        assertThatThrownBy(() -> start(database)).hasMessageContaining("not in the folder");
        sound();
        assertThatThrownBy(() -> start(database)).as("files that may be anybody's").hasMessageContaining("Only one of the folder");
    }

    @Test
    void a_start_that_was_killed_between_the_two_is_done_to_its_end() throws IOException {
        Database fresh = new Database();
        Files.writeString(folder.resolve(StoreIdentity.FILE), RandomKey.next());
        start(fresh);
        assertThat(fresh.id).isEqualTo(Files.readString(folder.resolve(StoreIdentity.FILE)).strip());
    }
}

package org.mellowclass.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.shelf.ShelfSound;
import org.mellowclass.app.sounds.Sound;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.MovableClock;
import org.mellowclass.app.testing.Named;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.util.unit.DataSize;

@AppTest
class StoreKeepingTest {

    private static final Instant NOW = Instant.parse("2026-11-25T10:00:00Z");

    @TempDir
    Path folder;
    @Autowired
    private List<NamedSounds> named;
    @Autowired
    private Shelf shelf;
    @Autowired
    private Schools schools;
    @Autowired
    private TakeShelf takes;
    private DirectorySoundStore store;
    private DirectoryDerivedStore derived;
    private final MovableClock clock = new MovableClock(NOW);

    @BeforeEach
    void openStore() throws IOException {
        store = new DirectorySoundStore(properties());
        derived = new DirectoryDerivedStore(properties(), clock);
    }

    private MellowProperties properties() {
        return new MellowProperties(URI.create("http://school.example"), folder, false, DataSize.ofBytes(25),
                new MellowProperties.Room(DataSize.ofMegabytes(1), DataSize.ofGigabytes(1), DataSize.ofGigabytes(1)), null);
    }

    private void keep(Set<String> named) {
        new StoreKeeping(store, derived, List.of(new Named(named)), properties(), clock).keep();
    }

    private static final Scratch.Owner WORK = Scratch.Owner.episode(1);

    private boolean there(String key) {
        return catchThrowable(() -> store.hold(key)) == null;
    }

    private Path inBin(String key) {
        return folder.resolve("bin").resolve(key);
    }

    @Test
    void what_no_row_has_named_for_a_day_goes_into_the_bin_and_nothing_else() throws IOException {
        String kept = put(Duration.ofDays(9));
        String orphan = put(Duration.ofDays(2));
        String young = put(Duration.ofHours(3));
        Path abandoned = store.scratchFile(WORK, ".wav");
        Files.setLastModifiedTime(abandoned, FileTime.from(NOW.minus(Duration.ofDays(2))));
        keep(Set.of(kept));
        assertThat(List.of(there(kept), there(young), there(orphan))).containsExactly(true, true, false);
        assertThat(inBin(orphan)).hasContent("sound");
        assertThat(abandoned).doesNotExist();
    }

    @Test
    void work_that_a_killed_process_has_left_goes_with_the_next_start_and_what_comes_in_parts_goes_on() throws IOException {
        String kept = put(Duration.ZERO);
        Path left = Files.writeString(store.scratchFile(WORK, ".wav"), "spoken");
        Path part = Files.writeString(store.partFile(), "half a file");
        store = new DirectorySoundStore(properties());
        assertThat(left).doesNotExist();
        assertThat(part).hasContent("half a file");
        assertThat(there(kept)).isTrue();
    }

    @Test
    void work_on_what_was_erased_goes_and_whoever_is_at_it_cannot_keep_it() throws IOException {
        Path mine = Files.writeString(store.scratchFile(WORK, ".wav"), "spoken");
        Path others = store.scratchFile(Scratch.Owner.episode(12), ".wav");
        Path shelf = store.scratchFile(Scratch.Owner.shelf(1), ".wav");
        store.forget(WORK);
        assertThat(mine).doesNotExist();
        assertThat(others).exists();
        assertThat(shelf).exists();
        assertThatThrownBy(() -> store.put(mine)).isInstanceOf(NoSuchFileException.class);
    }

    @Test
    void the_bin_keeps_for_thirty_days() throws IOException {
        String kept = put(Duration.ZERO);
        String orphan = put(Duration.ofDays(2));
        keep(Set.of(kept));
        clock.set(Instant.now().plus(Duration.ofDays(29)));
        keep(Set.of(kept));
        assertThat(inBin(orphan)).exists();
        clock.set(Instant.now().plus(Duration.ofDays(31)));
        keep(Set.of(kept));
        assertThat(inBin(orphan)).doesNotExist();
    }

    @Test
    void a_sweep_that_finds_nothing_named_or_too_much_unnamed_touches_nothing() throws IOException {
        List<String> keys = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            keys.add(put(Duration.ofDays(9)));
        }
        keep(Set.of());
        assertThat(keys).allMatch(this::there);
        keep(Set.copyOf(keys.subList(0, 30)));
        assertThat(keys).allMatch(this::there);
        assertThatThrownBy(() -> store.sweep(Set.of(), NOW, NOW)).isInstanceOf(SuspiciousSweep.class);
        keep(Set.copyOf(keys.subList(0, 55)));
        assertThat(keys.stream().filter(this::there)).as("a small share goes").containsExactlyInAnyOrderElementsOf(keys.subList(0, 55));
    }

    @Test
    void what_is_erased_on_purpose_is_nowhere_any_more() throws IOException {
        String erased = put(Duration.ZERO);
        String swept = put(Duration.ofDays(2));
        keep(Set.of(erased));
        store.delete(erased);
        store.delete(swept);
        try (var left = Files.walk(folder).filter(Files::isRegularFile)) {
            assertThat(left).isEmpty();
        }
    }

    @Test
    void a_file_whose_disk_has_changed_a_bit_is_not_taken_for_what_was_put() throws IOException {
        String key = put(Duration.ZERO);
        store.holdWhole(key).close();
        Files.writeString(store.hold(key).file(), "sounc");
        assertThatThrownBy(() -> store.holdWhole(key)).isInstanceOf(DamagedFile.class);
    }

    @Test
    void checksums_are_those_of_the_standard_and_written_for_other_programs() throws Exception {
        Path file = store.scratchFile(WORK, ".sound");
        Files.writeString(file, "abc");
        String key = store.put(file);
        Path kept = store.hold(key).file();
        assertThat(Checksum.besides(kept)).as("the first example of FIPS 180-4")
                .hasContent("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad  " + key + "\n");
        assertThat(new ProcessBuilder("sha256sum", "-c", key + ".sha256").directory(kept.getParent().toFile()).redirectErrorStream(true).start().waitFor()).isZero();
    }

    @Test
    void a_file_that_was_put_in_a_hurry_has_its_checksum_when_it_is_settled() throws IOException {
        Path file = store.scratchFile(WORK, ".sound");
        Files.writeString(file, "sound");
        String key = store.putUnsettled(file);
        assertThat(Checksum.besides(store.hold(key).file())).doesNotExist();
        store.settle(key);
        assertThat(Checksum.besides(store.hold(key).file())).exists();
        store.holdWhole(key).close();
    }

    @Test
    void of_what_can_be_made_again_what_was_used_last_is_kept() throws IOException {
        List<String> keys = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            Path file = store.scratchFile(WORK, ".sound");
            Files.writeString(file, "ten bytes.");
            keys.add(derived.put(file));
            clock.advance(Duration.ofSeconds(1));
        }
        derived.hold(keys.get(0)).close();
        keep(Set.of());
        assertThat(catchThrowable(() -> derived.hold(keys.get(1)))).isInstanceOf(NoSuchFileException.class);
        derived.hold(keys.get(0)).close();
        derived.hold(keys.get(2)).close();
    }

    @Test
    void every_file_that_a_feature_keeps_is_named_by_it() throws IOException {
        Schools.School school = schools.build();
        long take = schools.readyTake(school, Schools.speech(), "Noor");
        HandIn handIn = schools.readyHandIn(school);
        Sound ready = schools.sound(school, take);
        long shelved = schools.shelfSound(school, "Bell", Signal.sine(1, 500, -12, 1));
        ShelfSound bell = shelf.sound(school.teacher(), shelved);
        assertThat(named).hasSize(4);
        assertThat(named.stream().flatMap(feature -> feature.keys().stream())).contains(ready.soundKey(), ready.skylineKey(), handIn.soundKey(), handIn.skylineKey(), bell.originalKey(), bell.soundKey(), bell.skylineKey());
    }

    @Test
    void only_keys_lead_to_files() {
        for (String path : List.of("../../etc/passwd", "", "ABCDEF", "0".repeat(31) + "/")) {
            assertThat(catchThrowable(() -> store.hold(path)))
                    .isInstanceOf(IllegalArgumentException.class);
        }
    }

    private String put(Duration age) throws IOException {
        Path file = store.scratchFile(WORK, ".sound");
        Files.writeString(file, "sound");
        Files.setLastModifiedTime(file, FileTime.from(NOW.minus(age)));
        return store.put(file);
    }
}

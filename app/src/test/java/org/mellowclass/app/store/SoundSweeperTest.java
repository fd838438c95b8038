package org.mellowclass.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
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
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class SoundSweeperTest {

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

    @BeforeEach
    void openStore() throws IOException {
        store = new DirectorySoundStore(new MellowProperties(folder, false, null));
    }

    @Test
    void what_no_row_has_named_for_a_day_is_deleted_and_nothing_else() throws IOException {
        String kept = put(Duration.ofDays(9));
        String orphan = put(Duration.ofDays(2));
        String young = put(Duration.ofHours(3));
        Path abandoned = store.scratchFile(".wav");
        Files.setLastModifiedTime(abandoned, FileTime.from(NOW.minus(Duration.ofDays(2))));

        new SoundSweeper(store, List.of(() -> Set.of(kept)), Clock.fixed(NOW, ZoneOffset.UTC)).sweep();

        assertThat(store.file(kept)).exists();
        assertThat(store.file(young)).exists();
        assertThat(abandoned).doesNotExist();
        assertThat(folder.resolve("sounds").resolve(orphan.substring(0, 2)).resolve(orphan)).doesNotExist();
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
            assertThat(catchThrowable(() -> store.file(path)))
                    .isInstanceOf(IllegalArgumentException.class);
        }
    }

    private String put(Duration age) throws IOException {
        Path file = store.scratchFile(".sound");
        Files.writeString(file, "sound");
        Files.setLastModifiedTime(file, FileTime.from(NOW.minus(age)));
        return store.put(file);
    }
}

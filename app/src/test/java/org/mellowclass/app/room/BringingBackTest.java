package org.mellowclass.app.room;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.erasing.Erasures;
import org.mellowclass.app.incoming.IncomingFiles;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.sounds.Treating;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.RemoveClip;
import org.mellowclass.core.treatment.PlayReturned;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

@AppTest
class BringingBackTest {

    private static final Signal TAKE = Signal.sine(1, 440, -12, 3);

    @Autowired
    private BringingBack bringingBack;
    @Autowired
    private Bench bench;
    @Autowired
    private Treating treating;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private Erasures erasures;
    @Autowired
    private MellowProperties properties;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient database;
    private Schools.School school;
    private long take;

    @BeforeEach
    void landATake() throws IOException {
        school = schools.build();
        take = schools.readyTake(school, TAKE, "Noor");
    }

    private static IncomingFiles.Upload upload(Signal sound) {
        return target -> {
            try (WavWriter writer = WavWriter.create(target, sound.channels(), 48_000, SampleFormat.FLOAT_32)) {
                SampleSink.drain(sound.stream(), writer);
            }
        };
    }

    private Track noor() {
        return bench.head(school.student(), school.episodeId()).timeline().tracks().get(0);
    }

    /** The names of the files that the store of truth holds. */
    private Set<String> kept() throws IOException {
        try (Stream<Path> files = Files.walk(properties.folder().resolve("sounds"))) {
            return files.filter(Files::isRegularFile).map(file -> file.getFileName().toString()).collect(Collectors.toSet());
        }
    }

    private String key() {
        return database.sql("SELECT original_key FROM returned_file WHERE take_id = ?").param(take).query(String.class).single();
    }

    @Test
    void what_was_treated_elsewhere_is_heard_in_the_place_of_the_take_and_undone_as_any_edit() throws IOException {
        bringingBack.bringBack(school.student(), take, upload(Signal.sine(1, 440, -30, 2.9)));
        Treatment treatment = noor().clips().get(0).source().treatment();
        assertThat(treatment.step(PlayReturned.class)).isPresent();
        treating.ensure(take, treatment);
        float[][] heard = new float[1][48_000];
        try (RandomAccessSound sound = sounds.open(take, treatment)) {
            sound.readAt(48_000, heard, 0, 48_000);
        }
        double most = 0;
        for (float sample : heard[0]) {
            most = Math.max(most, Math.abs(sample));
        }
        assertThat(most).as("−30 dBFS").isCloseTo(0.0316, within(0.001));
        bench.undo(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), "undo-returned", false);
        assertThat(noor().clips().get(0).source().treatment()).isEqualTo(Treatment.NONE);
    }

    @Test
    void another_length_another_crew_or_a_take_that_is_not_on_the_page_is_refused_and_nothing_is_kept() throws IOException {
        Set<String> before = kept();
        assertThatThrownBy(() -> bringingBack.bringBack(school.student(), take, upload(Signal.sine(1, 440, -30, 2)))).hasMessageStartingWith("take.OTHER_LENGTH");
        assertThatThrownBy(() -> bringingBack.bringBack(school.student(), take, target -> Files.writeString(target, "no sound")))
                .hasMessageStartingWith("take.NOT_SOUND");
        assertThatThrownBy(() -> bringingBack.bringBack(school.stranger(), take, upload(TAKE))).isInstanceOf(NotFound.class);
        bench.edit(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), "off-the-page", new RemoveClip(noor().clips().get(0).id()));
        assertThatThrownBy(() -> bringingBack.bringBack(school.student(), take, upload(TAKE))).hasMessageContaining("NO_SUCH_CLIP");
        assertThat(kept()).isEqualTo(before);
    }

    @Test
    void the_file_goes_with_its_take() throws IOException {
        bringingBack.bringBack(school.student(), take, upload(TAKE));
        String key = key();
        assertThat(kept()).anyMatch(name -> name.startsWith(key));
        erasures.erase(school.teacher(), take);
        assertThat(database.sql("SELECT count(*) FROM returned_file WHERE take_id = ?").param(take).query(Long.class).single()).isZero();
        assertThat(kept()).noneMatch(name -> name.startsWith(key));
    }
}

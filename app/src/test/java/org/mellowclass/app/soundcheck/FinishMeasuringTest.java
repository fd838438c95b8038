package org.mellowclass.app.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;

import java.time.Instant;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Finish;
import org.mellowclass.app.bench.Finishes;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.bench.PreviewSound;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.media.SoundDecoder;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class FinishMeasuringTest {

    @TempDir
    Path folder;
    @Autowired
    private Bench bench;
    @Autowired
    private Finishes finishes;
    @Autowired
    private PreviewSound preview;
    @Autowired
    private HandIns handIns;
    @Autowired
    private SoundDecoder decoder;
    @Autowired
    private FinishMeasuring measuring;
    @Autowired
    private Schools schools;
    private Schools.School school;

    @BeforeEach
    void twoVoices() throws IOException {
        school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        schools.readyTake(school, Signal.noise(2, -35, 3, 4), "Ravi");
    }

    private Head measured() {
        Schools.await(() -> {
            measuring.askForThoseThatRest();
            return finishes.newest(school.episodeId()).revision() == bench.head(school.student(), school.episodeId()).seq();
        });
        return bench.head(school.student(), school.episodeId());
    }

    @Test
    void some_seconds_after_the_last_edit_the_bench_sounds_as_the_hand_in_does() throws Exception {
        Head head = measured();
        Finish finish = finishes.newest(school.episodeId()).finish();
        HandIn handIn = schools.readyHandIn(school);
        Path flac = Files.write(folder.resolve("mixdown.flac"), handIns.sound(school.student(), handIn.id()).getContentAsByteArray());
        float[][] published;
        try (SampleSource sound = decoder.open(flac, decoder.probe(flac))) {
            published = Signal.read(sound).samples();
        }
        int frames = Math.min(published[0].length, (int) Frames.ofSeconds(3));
        ByteBuffer heard = ByteBuffer.wrap(preview.finished(school.student(), school.episodeId(), head.seq(), finish, 0, frames)).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < frames; i++) {
            // the hand-in is kept in 24 bits
            assertThat(heard.getFloat()).as("frame %d", i).isCloseTo(published[0][i], within(3e-7f));
            assertThat(heard.getFloat()).isCloseTo(published[1][i], within(3e-7f));
        }
    }

    @Test
    void a_process_that_starts_reads_what_was_edited_before_it() {
        assertThat(finishes.unread(Instant.now().minusSeconds(600))).contains(school.episodeId());
        measured();
        Schools.await(() -> !finishes.unread(Instant.now().minusSeconds(600)).contains(school.episodeId()));
        assertThat(finishes.unread(Instant.now().plusSeconds(600))).isEmpty();
    }

    @Test
    void a_measuring_that_ends_late_does_not_take_the_place_of_a_newer_one() throws IOException {
        Head head = measured();
        Finish newest = finishes.newest(school.episodeId()).finish();
        finishes.keep(school.episodeId(), head.seq() - 1, new Finish(1, -2));
        assertThat(finishes.newest(school.episodeId()).finish()).isEqualTo(newest);
        measuring.run(school.episodeId());
        measuring.run(-1);
        assertThat(finishes.newest(school.episodeId()).revision()).isEqualTo(head.seq());
    }
}

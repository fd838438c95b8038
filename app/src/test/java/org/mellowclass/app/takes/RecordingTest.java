package org.mellowclass.app.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Track;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

@AppTest
class RecordingTest {

    private static final int RATE = 44_100;

    @Autowired
    private Recording recording;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private Bench bench;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient jdbc;
    private Schools.School school;
    private long take;

    private record Chunk(int number, long firstFrame, byte[] pcm) {
    }

    @BeforeEach
    void begin() {
        school = schools.build();
        take = recording.begin(school.student(), school.episodeId(), "Noor", RATE);
    }

    @Test
    void what_was_spoken_is_in_the_take_though_chunks_came_twice_and_out_of_order() throws IOException {
        Signal spoken = Signal.sine(RATE, 440, 0, 3.3, -9);
        List<Chunk> chunks = new ArrayList<>(chunks(spoken));
        chunks.addAll(chunks.subList(0, 2));
        Collections.shuffle(chunks, new Random(5));
        chunks.forEach(this::send);
        assertThat(recording.end(school.student(), take, 4)).isEmpty();
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));

        Take ready = takes.ready(school.episodeId()).get(take);
        assertThat(ready.frames()).isEqualTo(Frames.converted(spoken.frames(), RATE));
        Signal expected = Signal.sine(1, 440, -9, 3.3);
        float[][] heard = new float[1][(int) ready.frames().longValue()];
        try (RandomAccessSound sound = takes.open(take)) {
            sound.readAt(0, heard, 0, heard[0].length);
        }
        for (int i = 2000; i < heard[0].length - 2000; i++) {
            assertThat(heard[0][i]).isBetween(expected.samples()[0][i] - 1e-4f, expected.samples()[0][i] + 1e-4f);
        }
        assertThat(jdbc.sql("SELECT count(*) FROM take_chunk WHERE take_id = ?").param(take).query(Integer.class).single())
                .as("chunks are kept no longer than needed").isZero();
    }

    @Test
    void a_ready_take_lies_behind_what_was_there_on_the_track_it_was_recorded_for() throws IOException {
        schools.readyTake(school, Schools.speech(), "Noor");
        chunks(Signal.sine(RATE, 440, 0, 1, -9)).forEach(this::send);
        recording.end(school.student(), take, 1);
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        List<Track> tracks = bench.head(school.student(), school.episodeId()).timeline().tracks();
        assertThat(tracks).singleElement().satisfies(track -> {
            assertThat(track.name()).isEqualTo("Noor");
            assertThat(track.clips()).extracting(Clip::startFrame).containsExactly(0L, Schools.speech().frames());
        });
    }

    @Test
    void a_missing_chunk_is_asked_for_by_its_number_and_the_take_goes_on_waiting() {
        List<Chunk> chunks = chunks(Signal.sine(RATE, 440, 0, 3, -9));
        send(chunks.get(0));
        send(chunks.get(2));
        assertThat(recording.end(school.student(), take, 3)).containsExactly(1);
        send(chunks.get(1));
        assertThat(recording.end(school.student(), take, 3)).isEmpty();
    }

    @Test
    void ending_twice_makes_one_job() {
        send(chunks(Signal.sine(RATE, 440, 0, 1, -9)).get(0));
        assertThat(recording.end(school.student(), take, 1)).isEmpty();
        assertThat(recording.end(school.student(), take, 1)).isEmpty();
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        assertThat(bench.head(school.student(), school.episodeId()).seq()).isEqualTo(2);
    }

    @Test
    void an_ended_take_takes_nothing_more() {
        send(chunks(Signal.sine(RATE, 440, 0, 1, -9)).get(0));
        recording.end(school.student(), take, 1);
        assertThatThrownBy(() -> send(new Chunk(1, RATE, new byte[100]))).isInstanceOf(Refusal.class).hasMessage("take.ENDED");
    }

    @Test
    void a_take_without_sound_and_chunks_that_do_not_fit_are_refused() {
        assertThatThrownBy(() -> recording.end(school.student(), take, 0)).hasMessage("take.EMPTY");
        assertThatThrownBy(() -> recording.begin(school.student(), school.episodeId(), "  ", RATE)).hasMessage("take.TRACK_NAME");
        assertThatThrownBy(() -> recording.begin(school.student(), school.episodeId(), "Noor", 4000)).hasMessage("take.RATE");
        long other = recording.begin(school.student(), school.episodeId(), "Noor", RATE);
        for (Chunk unfit : List.of(new Chunk(-1, 0, new byte[2]), new Chunk(0, -1, new byte[2]), new Chunk(0, 0, new byte[0]),
                new Chunk(0, 0, new byte[3]), new Chunk(0, 0, new byte[RATE * 12]), new Chunk(9, RATE * 7300L, new byte[2]))) {
            assertThatThrownBy(() -> recording.chunk(school.student(), other, unfit.number, unfit.firstFrame, unfit.pcm))
                    .isInstanceOf(Refusal.class).hasMessage("take.CHUNK");
        }
    }

    private void send(Chunk chunk) {
        recording.chunk(school.student(), take, chunk.number, chunk.firstFrame, chunk.pcm);
    }

    private static List<Chunk> chunks(Signal signal) {
        List<Chunk> chunks = new ArrayList<>();
        float[] samples = signal.samples()[0];
        for (int from = 0; from < samples.length; from += RATE) {
            float[] part = Arrays.copyOfRange(samples, from, Math.min(samples.length, from + RATE));
            chunks.add(new Chunk(chunks.size(), from, Pcm16.interleaved(new float[][] {part}, part.length)));
        }
        return chunks;
    }
}

package org.mellowclass.app.recording;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.put;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.IOException;
import java.security.GeneralSecurityException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.zip.CRC32;

import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class RecordingTest {

    private static final int RATE = 44_100;

    @Autowired
    private Recording recording;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private Bench bench;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient jdbc;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;
    private long take;
    private String key;

    private record Chunk(int number, long firstFrame, byte[] pcm) {
    }

    @BeforeEach
    void begin() {
        school = schools.build();
        Recording.Begun begun = recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", RATE));
        take = begun.takeId();
        key = begun.uploadKey();
    }

    @Test
    void what_was_spoken_is_in_the_take_though_chunks_came_twice_and_out_of_order() throws IOException {
        Signal spoken = Signal.sine(RATE, 440, 0, 3.3, -9);
        List<Chunk> chunks = new ArrayList<>(chunks(spoken));
        chunks.addAll(chunks.subList(0, 2));
        Collections.shuffle(chunks, new Random(5));
        chunks.forEach(this::send);
        assertThat(recording.end(key, 4, 0, false)).isEmpty();
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));

        Take ready = takes.ready(school.episodeId()).get(take);
        assertThat(ready.frames()).isEqualTo(Frames.converted(spoken.frames(), RATE));
        Signal expected = Signal.sine(1, 440, -9, 3.3);
        float[][] heard = new float[1][(int) ready.frames().longValue()];
        try (RandomAccessSound sound = sounds.open(take, Treatment.NONE)) {
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
        recording.end(key, 1, 0, false);
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
        assertThat(recording.end(key, 3, 0, false)).containsExactly(1);
        send(chunks.get(1));
        assertThat(recording.end(key, 3, 0, false)).isEmpty();
    }

    @Test
    void ending_twice_makes_one_job() {
        send(chunks(Signal.sine(RATE, 440, 0, 1, -9)).get(0));
        assertThat(recording.end(key, 1, 0, false)).isEmpty();
        assertThat(recording.end(key, 1, 0, false)).isEmpty();
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        assertThat(bench.head(school.student(), school.episodeId()).seq()).isEqualTo(2);
    }

    @Test
    void a_few_bytes_never_become_hours_of_silence() {
        send(new Chunk(0, 0, new byte[200]));
        jdbc.sql("UPDATE recording SET begun_at = begun_at - INTERVAL 3 HOUR WHERE take_id = ?").param(take).update();
        assertThat(recording.end(key, 1, 2L * 60 * 60 * RATE, true)).isEmpty();
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        assertThat(takes.ready(school.episodeId()).get(take).frames()).as("no more silence than sound").isLessThanOrEqualTo(Frames.converted(200, RATE));
    }

    @Test
    void a_take_is_no_longer_than_the_clock_and_its_rest_than_that_of_its_beginning() {
        Chunk inTenMinutes = new Chunk(1, 600L * RATE, new byte[200]);
        assertThatThrownBy(() -> send(inTenMinutes)).hasMessage("take.CHUNK");
        jdbc.sql("UPDATE recording SET begun_at = begun_at - INTERVAL 10 MINUTE WHERE take_id = ?").param(take).update();
        send(inTenMinutes);
        Recording.Start rest = new Recording.Start("Noor", RATE, 0, null, null, Set.of(), Set.of(), null, null, take);
        key = recording.begin(school.student(), school.episodeId(), rest).uploadKey();
        send(inTenMinutes);
        Schools.School stranger = schools.build();
        key = recording.begin(stranger.student(), stranger.episodeId(), rest).uploadKey();
        assertThatThrownBy(() -> send(inTenMinutes)).as("another crew's take counts for nothing").hasMessage("take.CHUNK");
    }

    @Test
    void an_ended_take_takes_nothing_more() {
        send(chunks(Signal.sine(RATE, 440, 0, 1, -9)).get(0));
        recording.end(key, 1, 0, false);
        assertThatThrownBy(() -> send(new Chunk(1, RATE, new byte[100]))).isInstanceOf(Refusal.class).hasMessage("take.ENDED");
    }

    @Test
    void what_never_came_is_silent_at_its_place_and_its_exact_span_is_told() throws IOException {
        Signal spoken = Signal.sine(RATE, 440, 0, 4, -9);
        List<Chunk> chunks = chunks(spoken);
        send(chunks.get(0));
        send(chunks.get(2));
        assertThat(recording.end(key, 4, 4L * RATE, false)).containsExactly(1, 3);
        assertThat(recording.end(key, 4, 4L * RATE, true)).isEmpty();
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        Take ready = takes.ready(school.episodeId()).get(take);
        assertThat(sounds.missingOf(school.episodeId()).get(take)).containsExactly(new Span(48_000, 96_000), new Span(144_000, 192_000));
        assertThat(ready.frames()).isEqualTo(192_000);
        float[][] heard = new float[1][192_000];
        try (RandomAccessSound sound = sounds.open(take, Treatment.NONE)) {
            sound.readAt(0, heard, 0, heard[0].length);
        }
        Signal expected = Signal.sine(1, 440, -9, 4);
        for (int i = 2_000; i < heard[0].length; i += 7) {
            boolean there = i % 96_000 < 46_000 && i % 96_000 > 2_000;
            boolean gap = i % 96_000 > 50_000 && i % 96_000 < 94_000;
            if (there || gap) {
                float wanted = there ? expected.samples()[0][i] : 0;
                assertThat(heard[0][i]).as("frame %d", i).isBetween(wanted - 1e-4f, wanted + 1e-4f);
            }
        }
    }

    @Test
    void a_chunk_that_was_damaged_on_its_way_is_refused_and_taken_when_it_comes_whole() {
        Chunk chunk = chunks(Signal.sine(RATE, 440, 0, 1, -9)).get(0);
        byte[] damaged = chunk.pcm.clone();
        damaged[99] ^= 1;
        assertThatThrownBy(() -> recording.chunk(key, 0, 0, crc(chunk.pcm), damaged, false)).hasMessage("take.DAMAGED");
        assertThat(recording.end(key, 1, RATE, false)).containsExactly(0);
        send(chunk);
        assertThat(recording.end(key, 1, RATE, false)).isEmpty();
    }

    private static byte[] sealed(byte[] key, byte[] pcm) throws GeneralSecurityException {
        byte[] nonce = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12};
        Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
        cipher.init(Cipher.ENCRYPT_MODE, new SecretKeySpec(key, "AES"), new GCMParameterSpec(128, nonce));
        byte[] text = cipher.doFinal(pcm);
        byte[] sealed = Arrays.copyOf(nonce, nonce.length + text.length);
        System.arraycopy(text, 0, sealed, nonce.length, text.length);
        return sealed;
    }

    @Test
    void what_a_laptop_has_kept_sealed_is_taken_also_as_the_rest_of_a_take_and_nothing_that_was_sealed_otherwise() throws Exception {
        Recording.Begun begun = recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", RATE));
        byte[] pcm = chunks(Signal.sine(RATE, 440, 0, 1, -9)).get(0).pcm;
        byte[] sealed = sealed(begun.seal(), pcm);
        byte[] foreign = sealed(new byte[32], pcm);
        assertThatThrownBy(() -> recording.chunk(begun.uploadKey(), 0, 0, crc(foreign), foreign, true)).hasMessage("take.CHUNK");
        assertThatThrownBy(() -> recording.chunk(begun.uploadKey(), 0, 0, crc(new byte[9]), new byte[9], true)).hasMessage("take.CHUNK");
        recording.chunk(begun.uploadKey(), 0, 0, crc(sealed), sealed, true);
        assertThat(recording.end(begun.uploadKey(), 1, RATE, false)).isEmpty();
        Recording.Begun rest = recording.begin(school.student(), school.episodeId(),
                new Recording.Start(null, RATE, 0, null, null, Set.of(), Set.of(), null, null, begun.takeId()));
        recording.chunk(rest.uploadKey(), 0, 0, crc(sealed), sealed, true);
        assertThat(recording.end(rest.uploadKey(), 1, RATE, false)).isEmpty();
        Schools.await(() -> takes.ready(school.episodeId()).keySet().containsAll(Set.of(begun.takeId(), rest.takeId())));
        assertThat(takes.ready(school.episodeId()).get(rest.takeId()).trackName()).isEqualTo("Noor");
        assertThat(samples(begun.takeId())).isDeepEqualTo(samples(rest.takeId())).satisfies(heard -> assertThat(heard[0]).hasSize(Frames.RATE));
    }

    private float[][] samples(long takeId) throws IOException {
        try (RandomAccessSound sound = sounds.open(takeId, Treatment.NONE)) {
            float[][] heard = new float[1][(int) sound.frames()];
            sound.readAt(0, heard, 0, heard[0].length);
            return heard;
        }
    }

    @Test
    void a_recording_goes_on_without_a_sign_in_but_not_with_another_key() throws Exception {
        Chunk chunk = chunks(Signal.sine(RATE, 440, 0, 1, -9)).get(0);
        for (int twice = 0; twice < 2; twice++) {
            mvc.perform(put("/uploads/{key}/chunks/0", key).param("firstFrame", "0").param("crc32", "" + crc(chunk.pcm))
                    .content(chunk.pcm)).andExpect(status().isNoContent());
        }
        mvc.perform(post("/uploads/{key}/sign", key)).andExpect(status().isNoContent());
        mvc.perform(put("/uploads/{key}/chunks/1", RandomKey.next()).param("firstFrame", "0").param("crc32", "0")
                .content(chunk.pcm)).andExpect(status().isNotFound());
        mvc.perform(put("/uploads/{key}/chunks/1", key).param("firstFrame", "0").param("crc32", "0")
                .content(new byte[Recording.MOST_CHUNK_BYTES + 1])).andExpect(status().isUnprocessableEntity());
        mvc.perform(post("/uploads/{key}/end", key).contentType(MediaType.APPLICATION_JSON)
                .content("{\"chunks\":1,\"frames\":44100,\"evenWithGaps\":false}"))
                .andExpect(status().isOk()).andExpect(content().json("{\"missing\":[]}"));
    }

    @Test
    void an_interrupted_take_is_completed_with_what_has_come_and_one_that_gives_signs_is_not() {
        send(chunks(Signal.sine(RATE, 440, 0, 2, -9)).get(0));
        assertThatThrownBy(() -> recording.complete(school.student(), take)).hasMessage("take.STILL_RECORDING");
        jdbc.sql("UPDATE recording SET last_sign_at = last_sign_at - INTERVAL 121 SECOND WHERE take_id = ?").param(take).update();
        assertThatThrownBy(() -> recording.complete(school.neighbour(), take)).isInstanceOf(NotFound.class);
        assertThat(recording.complete(school.partner(), take)).isEqualTo(school.episodeId());
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        assertThat(takes.ready(school.episodeId()).get(take).frames()).isEqualTo(48_000);
    }

    @Test
    void completing_what_is_no_recording_changes_nothing() throws IOException {
        long file = schools.readyTake(school, Schools.speech(), "Noor");
        jdbc.sql("UPDATE take SET state = 'ARRIVED' WHERE id = ?").param(file).update();
        recording.complete(school.student(), file);
        assertThat(jdbc.sql("SELECT state FROM take WHERE id = ?").param(file).query(String.class).single()).isEqualTo("ARRIVED");
    }

    @Test
    void a_sign_of_life_keeps_a_take_that_has_nothing_to_send() {
        jdbc.sql("UPDATE recording SET last_sign_at = last_sign_at - INTERVAL 121 SECOND WHERE take_id = ?").param(take).update();
        assertThat(recording.unfinished(takes.ofEpisode(school.student(), school.episodeId())).get(take).live()).isFalse();
        recording.sign(key);
        assertThat(recording.unfinished(takes.ofEpisode(school.student(), school.episodeId())).get(take).live()).isTrue();
    }

    @Test
    void a_take_without_sound_and_chunks_that_do_not_fit_are_refused() {
        assertThat(recording.end(key, 0, 0, false)).isEmpty();
        assertThat(takes.ofEpisode(school.student(), school.episodeId()).get(0).problem()).isEqualTo("EMPTY");
        assertThatThrownBy(() -> recording.begin(school.student(), school.episodeId(), Recording.Start.on("  ", RATE))).hasMessage("take.TRACK_NAME");
        assertThatThrownBy(() -> recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", 4000))).hasMessage("take.RATE");
        String other = recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", RATE)).uploadKey();
        for (Chunk unfit : List.of(new Chunk(-1, 0, new byte[2]), new Chunk(0, -1, new byte[2]), new Chunk(0, 0, new byte[0]),
                new Chunk(0, 0, new byte[3]), new Chunk(0, 0, new byte[RATE * 12]), new Chunk(9, RATE * 7300L, new byte[2]))) {
            assertThatThrownBy(() -> recording.chunk(other, unfit.number, unfit.firstFrame, crc(unfit.pcm), unfit.pcm, false))
                    .isInstanceOf(Refusal.class).hasMessage("take.CHUNK");
        }
    }

    private static long crc(byte[] pcm) {
        CRC32 crc = new CRC32();
        crc.update(pcm);
        return crc.getValue();
    }

    private void send(Chunk chunk) {
        recording.chunk(key, chunk.number, chunk.firstFrame, crc(chunk.pcm), chunk.pcm, false);
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

package org.mellowclass.app.incoming;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.hamcrest.Matchers.allOf;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.is;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.head;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.patch;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.header;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.jsonPath;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import com.jayway.jsonpath.JsonPath;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.SoundMaking;
import org.mellowclass.app.sounds.TakeMeasuring;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.Skyline;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.media.SoundEncoder;
import org.mellowclass.media.Tags;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.ResultActions;

@AppTest
class BringingInTest {

    @TempDir
    Path folder;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private Schools schools;
    @Autowired
    private SoundEncoder encoder;
    @Autowired
    private MellowProperties properties;
    @Autowired
    private SoundStore store;
    @Autowired
    private TakeMeasuring measuring;
    @Autowired
    private SoundMaking making;
    @Autowired
    private Jobs jobs;
    @Autowired
    private JdbcClient database;
    @Autowired
    private BringingIn bringingIn;
    @Autowired
    private FilesInParts parts;
    @Autowired
    private Bench bench;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    @Test
    void an_mp3_is_brought_in_by_its_content_whatever_it_is_called() throws Exception {
        Path mp3 = folder.resolve("a.mp3");
        encoder.mp3(Signal.sine(2, 440, -12, 3).stream(), new Tags("x", "y", "z", LocalDate.EPOCH, ""), mp3);
        long id = upload("Grandad’s letters.wav", Files.readAllBytes(mp3));
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(id));
        Take take = takes.ready(school.episodeId()).get(id);
        assertThat(take.name()).isEqualTo("Grandad’s letters");
        assertThat(schools.sound(school, take.id()).channels()).isEqualTo(2);
        assertThat(Frames.toSeconds(take.frames())).isCloseTo(3, within(0.1));
    }

    @Test
    void clipped_spots_are_found_before_the_rate_is_converted() throws Exception {
        Signal signal = Signal.sine(44_100, 300, 0, 2, -6);
        for (int i = 44_100; i < 44_110; i++) {
            signal.samples()[0][i] = 1f;
        }
        long id = upload("loud.wav", bytes(signal));
        Schools.await(() -> sounds.findings(id).isPresent());
        assertThat(sounds.findings(id).orElseThrow().clipped()).containsExactly(new ClippedSpot(48_000, 48_011, 1));
    }

    @Test
    void a_file_that_the_disk_does_not_give_waits_is_kept_and_is_made_ready_by_a_press() throws Exception {
        long id = schools.readyTake(school, Signal.sine(44_100, 300, 0, 2, -6), "Noor");
        Path original = store.hold(database.sql("SELECT original_key FROM original WHERE take_id = ?").param(id).query(String.class).single()).file();
        Path away = Files.move(original, original.resolveSibling("away"));
        database.sql("UPDATE take SET state = 'FAILED', problem = 'FILE_IS_KEPT' WHERE id = ?").param(id).update();
        making.again(school.student(), id);
        Schools.await(() -> making.waitsFor(takes.ofEpisode(school.student(), school.episodeId()).get(0)).isPresent());
        mvc.perform(get("/episodes/" + school.episodeId() + "/takes").with(As.person(school.student())))
                .andExpect(content().string(allOf(containsString("tried again by itself. Everything is kept."), containsString("Try again now"))));
        Files.move(away, original);
        making.again(school.student(), id);
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(id));
        assertThatThrownBy(() -> making.again(schools.build().student(), id)).isInstanceOf(NotFound.class);
    }

    @Test
    void sound_that_a_power_cut_took_a_part_of_is_made_again_before_it_is_measured() throws Exception {
        long id = schools.readyTake(school, Signal.sine(44_100, 300, 0, 2, -6), "Noor");
        Take whole = takes.ready(school.episodeId()).get(id);
        String wholeKey = schools.sound(school, id).soundKey();
        try (FileChannel file = FileChannel.open(store.hold(wholeKey).file(), StandardOpenOption.WRITE)) {
            file.truncate(file.size() / 2);
        }
        database.sql("DELETE FROM take_findings WHERE take_id = ?").param(id).update();
        assertThatThrownBy(() -> measuring.ensure(id)).hasMessageContaining("cut off");
        jobs.ask("take", id, Jobs.ofEpisode(school.episodeId()));
        Schools.await(() -> sounds.findings(id).isPresent());
        Take again = takes.ready(school.episodeId()).get(id);
        assertThat(sounds.findings(id)).isPresent();
        assertThatThrownBy(() -> store.hold(wholeKey).file()).as("what was cut off is gone").isInstanceOf(IOException.class);
        assertThat(again.frames()).isEqualTo(whole.frames());
        assertThat(Files.size(store.hold(schools.sound(school, id).soundKey()).file())).isGreaterThan(again.frames() * Float.BYTES);
        assertThat(bench.head(school.student(), school.episodeId()).timeline().tracks()).singleElement()
                .satisfies(track -> assertThat(track.clips()).hasSize(1));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "notes.wav | Dear diary, today we recorded nothing. | This file is not a recording. Choose a WAV, MP3, FLAC, M4A or Ogg file.",
        "list.mp3 | #EXTM3U | This file is not a recording. Choose a WAV, MP3, FLAC, M4A or Ogg file.",
        "empty.wav | '' | This file is empty: there is not one byte in it. Choose another one."})
    void what_is_no_sound_is_refused_in_plain_words_and_nothing_is_kept(String name, String content, String words)
            throws Exception {
        Set<Path> before = files();
        send(name, content.getBytes()).andExpect(status().isUnprocessableEntity()).andExpect(jsonPath("$.detail", is(words)));
        assertThat(files()).isEqualTo(before);
        assertThat(takes.ofEpisode(school.student(), school.episodeId())).isEmpty();
    }

    @Test
    void a_sound_without_a_single_frame_is_refused_when_it_is_decoded() throws Exception {
        byte[] silent = bytes(Signal.silence(1, 0));
        ResultActions result = send("nothing.wav", silent);
        if (result.andReturn().getResponse().getStatus() == 200) {
            long id = ((Number) JsonPath.read(result.andReturn().getResponse().getContentAsString(), "$.takeId")).longValue();
            Schools.await(() -> takes.ofEpisode(school.student(), school.episodeId()).stream()
                    .anyMatch(take -> take.id() == id && take.state() == Take.State.FAILED));
        } else {
            result.andExpect(status().isUnprocessableEntity());
        }
        assertThat(takes.ready(school.episodeId())).isEmpty();
    }

    @Test
    void files_brought_in_one_after_another_lie_in_that_order_however_long_each_takes() throws Exception {
        for (Signal signal : List.of(Signal.sine(1, 300, -12, 40), Signal.sine(1, 300, -12, 2), Signal.sine(1, 300, -12, 1))) {
            bring(signal, "Noor", Take.Placing.BEHIND);
        }
        Schools.await(() -> takes.ready(school.episodeId()).size() == 3);
        assertThat(bench.head(school.student(), school.episodeId()).timeline().tracks()).singleElement()
                .satisfies(track -> assertThat(track.clips()).extracting(clip -> Frames.toSeconds(clip.frames())).containsExactly(40.0, 2.0, 1.0));
    }

    @Test
    void files_may_start_together_on_tracks_of_their_own_or_wait_in_the_take_list() throws Exception {
        bring(Signal.sine(1, 300, -12, 2), "Left", Take.Placing.START);
        bring(Signal.sine(1, 300, -12, 1), "Right", Take.Placing.START);
        bring(Signal.sine(1, 300, -12, 1), "Right", Take.Placing.LIST);
        Schools.await(() -> takes.ready(school.episodeId()).size() == 3);
        Timeline timeline = bench.head(school.student(), school.episodeId()).timeline();
        assertThat(timeline.tracks()).extracting(Track::name).containsExactlyInAnyOrder("Left", "Right");
        assertThat(timeline.tracks()).allSatisfy(track -> assertThat(track.clips()).singleElement()
                .satisfies(clip -> assertThat(clip.startFrame()).isZero()));
    }

    private void bring(Signal signal, String track, Take.Placing placing) throws IOException {
        bringingIn.bringIn(school.student(), school.episodeId(), "a.wav", track, placing, target -> Schools.write(signal, target));
    }

    @Test
    void a_take_is_heard_in_ranges_and_kept_by_no_cache() throws Exception {
        long id = schools.readyTake(school, Schools.speech(), "Noor");
        mvc.perform(get("/takes/" + id + "/sound").with(As.person(school.student())).header("Range", "bytes=0-99"))
                .andExpect(status().isPartialContent()).andExpect(header().longValue("Content-Length", 100))
                .andExpect(header().string("Cache-Control", "no-store"));
    }

    @Test
    void skyline_data_comes_in_tiles_that_end_with_the_take() throws Exception {
        long id = schools.readyTake(school, Signal.sine(1, 440, 0, 30), "Noor");
        int bins = (int) Math.ceil(30.0 * Frames.RATE / Skyline.FRAMES_A_BIN[0]);
        assertThat(sounds.skyline(school.student(), schools.sound(school, id).id(), 0, 0)).hasSize(2 * TakeSounds.TILE_BINS).contains((byte) 255);
        assertThat(sounds.skyline(school.student(), schools.sound(school, id).id(), 0, 1)).hasSize(2 * (bins - TakeSounds.TILE_BINS));
        assertThat(sounds.skyline(school.student(), schools.sound(school, id).id(), 0, 2)).isEmpty();
        assertThat(sounds.skyline(school.student(), schools.sound(school, id).id(), 3, 0)).hasSize(2 * 88);
    }

    private long upload(String name, byte[] content) throws Exception {
        String body = send(name, content).andExpect(status().isOk()).andReturn().getResponse().getContentAsString();
        return ((Number) JsonPath.read(body, "$.takeId")).longValue();
    }

    private ResultActions send(String name, byte[] content) throws Exception {
        return mvc.perform(multipart("/episodes/" + school.episodeId() + "/takes")
                .file(new MockMultipartFile("file", name, "audio/wav", content)).param("trackName", "Noor")
                .with(csrf()).with(As.person(school.student())));
    }

    private byte[] bytes(Signal signal) throws IOException {
        return Files.readAllBytes(Schools.write(signal, folder.resolve("signal.wav")));
    }

    /** Everything that the sound store holds, also on its way. */
    private Set<Path> files() throws IOException {
        try (Stream<Path> files = Files.walk(properties.folder())) {
            return files.filter(Files::isRegularFile).collect(Collectors.toSet());
        }
    }

    private MockHttpServletResponse part(String location, Person who, long offset, byte[] bytes) throws Exception {
        return mvc.perform(patch(location).header("Upload-Offset", offset).contentType("application/offset+octet-stream").content(bytes)
                .with(As.person(who)).with(csrf())).andReturn().getResponse();
    }

    private String begun(long bytes, String trackName) throws Exception {
        return mvc.perform(post("/episodes/" + school.episodeId() + "/files").header("Upload-Length", bytes).header("Upload-Metadata",
                "filename " + base64("eels.wav") + ",trackName " + base64(trackName) + ",placing " + base64("LIST")).with(As.person(school.student())).with(csrf()))
                .andExpect(status().isCreated()).andReturn().getResponse().getHeader("Location");
    }

    private static String base64(String text) {
        return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    private int offset(String location) throws Exception {
        return Integer.parseInt(mvc.perform(head(location).with(As.person(school.student()))).andReturn().getResponse().getHeader("Upload-Offset"));
    }

    @Test
    void a_file_that_comes_in_parts_goes_on_where_it_stopped() throws Exception {
        byte[] file = Files.readAllBytes(Schools.write(Schools.speech(), folder.resolve("a.wav")));
        String location = begun(file.length, "Noor");
        assertThat(part(location, school.student(), 0, Arrays.copyOf(file, 100_000)).getHeader("Upload-Offset")).isEqualTo("100000");
        assertThat(offset(location)).isEqualTo(100_000);
        assertThat(part(location, school.student(), 0, Arrays.copyOf(file, 100_000)).getStatus()).as("the same part again").isEqualTo(409);
        assertThat(part(location, school.stranger(), 100_000, new byte[10]).getStatus()).isEqualTo(404);
        assertThat(takes.ofEpisode(school.student(), school.episodeId())).isEmpty();
        assertThat(part(location, school.partner(), 100_000, Arrays.copyOfRange(file, 100_000, file.length)).getStatus()).as("anybody of the crew").isEqualTo(204);
        assertThat(offset(location)).isEqualTo(file.length);
        Schools.await(() -> takes.ready(school.episodeId()).size() == 1);
        assertThat(takes.ready(school.episodeId()).values()).singleElement().satisfies(take -> {
            assertThat(take.name()).isEqualTo("eels");
            assertThat(take.frames()).isEqualTo(Schools.speech().frames());
        });
        assertThat(part(location, school.student(), file.length, new byte[0]).getStatus()).as("its answer was lost").isEqualTo(204);
        assertThat(takes.ofEpisode(school.student(), school.episodeId())).hasSize(1);
    }

    /** A broadcast chunk that is two bytes short: the decoder refuses the whole file for it. */
    @Test
    void a_wav_with_a_chunk_that_is_too_short_is_read_around_it() throws Exception {
        byte[] plain = Files.readAllBytes(Schools.write(Schools.speech(), folder.resolve("a.wav")));
        int data = new String(plain, 0, 200, StandardCharsets.ISO_8859_1).indexOf("data");
        ByteArrayOutputStream odd = new ByteArrayOutputStream();
        odd.write(plain, 0, data);
        odd.writeBytes("bext".getBytes(StandardCharsets.US_ASCII));
        odd.writeBytes(new byte[] {0x58, 2, 0, 0});
        odd.writeBytes(new byte[600]);
        odd.write(plain, data, plain.length - data);
        long take = bringingIn.bringIn(school.student(), school.episodeId(), "odd.wav", "Noor", target -> Files.write(target, odd.toByteArray()));
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        assertThat(takes.ready(school.episodeId()).get(take).frames()).isEqualTo(Schools.speech().frames());
    }

    @Test
    void several_files_of_one_name_get_names_that_tell_them_apart() throws Exception {
        for (int i = 0; i < 3; i++) {
            bringingIn.bringIn(school.student(), school.episodeId(), "C:\\\\sounds\\\\eels.wav", "Noor", target -> Schools.write(Schools.speech(), target));
        }
        assertThat(takes.ofEpisode(school.student(), school.episodeId())).extracting(Take::name).containsExactlyInAnyOrder("eels", "eels 2", "eels 3");
    }

    @Test
    void an_empty_file_has_its_own_words() throws Exception {
        MockHttpServletResponse refused = mvc.perform(post("/episodes/" + school.episodeId() + "/files").header("Upload-Length", 0).header("Upload-Metadata", "trackName " + base64("Noor"))
                .with(As.person(school.student())).with(csrf())).andReturn().getResponse();
        assertThat(refused.getContentAsString()).contains("not one byte");
    }

    @Test
    void whoever_asks_while_the_last_part_comes_asks_again_and_does_not_begin_anew() throws Exception {
        byte[] file = Files.readAllBytes(Schools.write(Schools.speech(), folder.resolve("a.wav")));
        String location = begun(file.length, "Noor");
        List<Integer> answers = new ArrayList<>();
        InputStream coming = new FilterInputStream(new ByteArrayInputStream(file)) {
            @Override
            public int read(byte[] buffer, int from, int most) throws IOException {
                answers.add(asked(location));
                return super.read(buffer, from, most);
            }
        };
        parts.add(school.student(), location.replace("/files/", ""), 0, coming);
        assertThat(answers).isNotEmpty().containsOnly(423);
        assertThat(offset(location)).isEqualTo(file.length);
    }

    private int asked(String location) {
        try {
            return mvc.perform(head(location).with(As.person(school.student()))).andReturn().getResponse().getStatus();
        } catch (Exception failed) {
            throw new IllegalStateException(failed);
        }
    }

    @Test
    void a_file_in_parts_is_looked_at_and_limited_as_any_other() throws Exception {
        String location = begun(1000, "Noor");
        MockHttpServletResponse refused = part(location, school.student(), 0, "Dear diary, ".repeat(200).getBytes(StandardCharsets.UTF_8));
        assertThat(refused.getStatus()).isEqualTo(422);
        assertThat(refused.getContentAsString()).contains("not a recording");
        assertThat(mvc.perform(head(location).with(As.person(school.student()))).andReturn().getResponse().getStatus()).isEqualTo(404);
        for (long bytes : new long[] {0, -1, FilesInParts.MOST_BYTES + 1}) {
            mvc.perform(post("/episodes/" + school.episodeId() + "/files").header("Upload-Length", bytes).header("Upload-Metadata", "trackName " + base64("Noor"))
                    .with(As.person(school.student())).with(csrf())).andExpect(status().isUnprocessableEntity());
        }
        mvc.perform(post("/episodes/" + school.episodeId() + "/files").header("Upload-Length", 10).header("Upload-Metadata", "trackName ???")
                .with(As.person(school.student())).with(csrf())).andExpect(status().isUnprocessableEntity());
    }
}

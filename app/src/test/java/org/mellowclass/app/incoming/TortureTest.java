package org.mellowclass.app.incoming;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

/** Every dress that sound comes in, and everything that only pretends: imported, or refused with the right words. */
@AppTest
class TortureTest {

    private static final double SECONDS = 2;

    @TempDir
    private Path folder;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private BringingIn bringingIn;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private Schools schools;
    @Autowired
    private MellowProperties properties;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private Path make(String name, String... arguments) {
        Path file = folder.resolve(name);
        List<String> command = new ArrayList<>(List.of("ffmpeg", "-nostdin", "-v", "error", "-y"));
        command.addAll(Arrays.asList(arguments));
        command.add(file.toString());
        try {
            Process process = new ProcessBuilder(command).inheritIO().start();
            assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
            assertThat(process.exitValue()).as(String.join(" ", command)).isZero();
            return file;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Two seconds of a tone of 440 Hz. */
    private Path tone(String name, int rate, int channels, String... arguments) {
        List<String> all = new ArrayList<>(List.of("-f", "lavfi", "-i", "sine=frequency=440:duration=2:sample_rate=" + rate, "-ac", "" + channels));
        all.addAll(Arrays.asList(arguments));
        return make(name, all.toArray(String[]::new));
    }

    private long bring(Path file) throws IOException {
        return bringingIn.bringIn(school.student(), school.episodeId(), file.getFileName().toString(), "Noor",
                target -> Files.copy(file, target, StandardCopyOption.REPLACE_EXISTING));
    }

    private Map<String, Take> imported(List<Path> files) throws IOException {
        Map<Long, String> names = new LinkedHashMap<>();
        for (Path file : files) {
            names.put(bring(file), file.getFileName().toString());
        }
        Schools.await(() -> takes.ofEpisode(school.student(), school.episodeId()).stream()
                .noneMatch(take -> take.state() == Take.State.ARRIVED));
        return takes.ofEpisode(school.student(), school.episodeId()).stream().collect(Collectors.toMap(take -> names.get(take.id()), take -> take));
    }

    @Test
    void every_dress_of_sound_is_imported_whole() throws IOException {
        List<Path> files = new ArrayList<>();
        for (String codec : List.of("pcm_u8", "pcm_s16le", "pcm_s24le", "pcm_s32le", "pcm_f32le", "pcm_f64le", "pcm_alaw", "adpcm_ms")) {
            files.add(tone(codec + ".wav", 44_100, 2, "-c:a", codec));
        }
        for (int rate : List.of(8_000, 11_025, 22_050, 32_000, 96_000, 192_000)) {
            files.add(tone(rate + ".wav", rate, 1));
        }
        files.add(tone("six-channels.wav", 48_000, 6));
        files.add(tone("rf64.wav", 48_000, 2, "-rf64", "always"));
        files.add(tone("big.w64", 48_000, 2));
        files.add(tone("plain.aiff", 44_100, 2));
        files.add(tone("compressed.aifc", 44_100, 2, "-f", "aiff", "-c:a", "pcm_s16le"));
        files.add(tone("plain.mp3", 44_100, 2, "-c:a", "libmp3lame", "-b:a", "128k"));
        files.add(tone("plain.flac", 48_000, 2));
        files.add(tone("vorbis.ogg", 44_100, 2, "-c:a", "libvorbis"));
        files.add(tone("speech.opus", 48_000, 1, "-c:a", "libopus"));
        files.add(tone("phone.m4a", 44_100, 1, "-c:a", "aac"));
        files.add(tone("browser.webm", 48_000, 2, "-c:a", "libopus"));
        files.add(make("film.mp4", "-f", "lavfi", "-i", "testsrc=duration=2:size=64x64:rate=5", "-f", "lavfi", "-i", "sine=frequency=440:duration=2",
                "-c:v", "mpeg4", "-c:a", "aac", "-shortest"));
        byte[] wav = Files.readAllBytes(tone("sixteen.wav", 48_000, 1));
        files.add(write("length-unknown.wav", withDataLength(wav, -1)));
        files.add(write("length-zero.wav", withDataLength(wav, 0)));
        files.add(write("odd-chunks.wav", withChunksInFront(wav)));
        byte[] mp3 = Files.readAllBytes(folder.resolve("plain.mp3"));
        files.add(write("broken-tag.mp3", concat(brokenTag(), mp3)));
        files.add(write("tag-behind.mp3", concat(mp3, "TAG".getBytes(StandardCharsets.US_ASCII), new byte[125])));

        Map<String, Take> imported = imported(files);
        assertThat(imported).hasSameSizeAs(files);
        imported.forEach((name, take) -> {
            assertThat(take.state()).as(name).isEqualTo(Take.State.READY);
            assertThat(Frames.toSeconds(take.frames())).as(name).isCloseTo(SECONDS, within(0.08));
            assertThat(crossings(take)).as("the pitch of %s", name).isCloseTo(440, within(6.0));
        });
    }

    @Test
    void the_start_delay_of_an_mp3_is_compensated() throws IOException {
        Path click = make("click.wav", "-f", "lavfi", "-i", "aevalsrc='if(between(t,1,1.002),0.9,0)':d=2:s=44100");
        Path mp3 = make("click.mp3", "-i", click.toString(), "-c:a", "libmp3lame", "-b:a", "192k");
        Map<String, Take> imported = imported(List.of(click, mp3));
        long inWav = loudest(imported.get("click.wav"));
        assertThat(inWav).isCloseTo(Frames.RATE, within(120L));
        assertThat(loudest(imported.get("click.mp3"))).isCloseTo(inWav, within(Frames.ofMillis(3)));
    }

    @Test
    void of_a_file_that_was_cut_off_what_can_be_decoded_is_kept_and_the_rest_is_told() throws Exception {
        byte[] wav = Files.readAllBytes(tone("whole.wav", 48_000, 1));
        byte[] flac = Files.readAllBytes(tone("whole.flac", 48_000, 1));
        byte[] mp3 = Files.readAllBytes(tone("whole.mp3", 44_100, 1, "-c:a", "libmp3lame"));
        Map<String, Take> imported = imported(List.of(write("cut.wav", Arrays.copyOf(wav, wav.length / 2)),
                write("cut.flac", Arrays.copyOf(flac, flac.length / 2)), write("cut.mp3", Arrays.copyOf(mp3, mp3.length / 2))));
        imported.forEach((name, take) -> {
            assertThat(take.state()).as(name).isEqualTo(Take.State.READY);
            assertThat(Frames.toSeconds(take.frames())).as(name).isBetween(0.5, 1.2);
        });
        assertThat(sounds.missingOf(school.episodeId())).as("an MP3 that counts its frames").extractingByKey(imported.get("cut.mp3").id()).asList().hasSize(1);
        assertThat(takeList()).contains("s of 2.0 s was kept.");
        assertThat(sounds.missingOf(school.episodeId()).get(imported.get("cut.flac").id())).singleElement().satisfies(span -> assertThat(span.endFrame()).isEqualTo(Frames.ofSeconds(2)));
    }

    @Test
    void what_was_damaged_or_silent_or_mixed_together_is_said_in_the_take_list() throws Exception {
        byte[] mp3 = Files.readAllBytes(tone("whole.mp3", 44_100, 1, "-c:a", "libmp3lame"));
        Arrays.fill(mp3, mp3.length / 2, mp3.length / 2 + 1500, (byte) 0x55);
        imported(List.of(write("damaged.mp3", mp3), tone("six.wav", 48_000, 6), make("silent.wav", "-f", "lavfi", "-i", "anullsrc=r=48000:d=2")));
        assertThat(takeList()).contains("Parts of it are damaged.").contains("It had 6 channels. They were mixed to two.")
                .containsOnlyOnce("It is silent from beginning to end.");
    }

    private String takeList() throws Exception {
        return mvc.perform(get("/episodes/" + school.episodeId() + "/takes").with(As.person(school.student()))).andReturn().getResponse().getContentAsString();
    }

    @Test
    void what_only_pretends_is_refused_with_its_reason_and_leaves_nothing_behind() throws IOException {
        Instant start = Instant.now();
        Set<Path> before = files();
        byte[] noise = new byte[50_000];
        new Random(1).nextBytes(noise);
        refuses("take.EMPTY_FILE", write("nothing.wav", new byte[0]));
        refuses("take.NOT_SOUND", write("diary.mp3", "Dear diary. ".repeat(1000).getBytes(StandardCharsets.UTF_8)));
        refuses("take.NOT_SOUND", write("list.wav", ("#EXTM3U\n#EXTINF:1,\n" + folder.resolve("secret.wav") + "\n").getBytes(StandardCharsets.UTF_8)));
        refuses("take.NOT_SOUND", write("join.wav", "ffconcat version 1.0\nfile /etc/hostname\n".getBytes(StandardCharsets.UTF_8)));
        refuses("take.NOT_SOUND", write("page.wav", "<html><body>Not found</body></html>".getBytes(StandardCharsets.UTF_8)));
        refuses("take.NOT_SOUND", write("noise.flac", noise));
        refuses("take.NOT_SOUND", write("header.wav", Arrays.copyOf(Files.readAllBytes(tone("a.wav", 48_000, 1)), 20)));
        refuses("take.NOT_SOUND", make("picture.png", "-f", "lavfi", "-i", "testsrc=size=64x64", "-frames:v", "1"));
        refuses("take.NO_AUDIO", make("silent-film.mp4", "-f", "lavfi", "-i", "testsrc=duration=1:size=64x64:rate=5", "-c:v", "mpeg4"));
        refuses("take.ODD_RATE", tone("slow.wav", 4_000, 1));
        refuses("take.TOO_LONG", make("hours.flac", "-f", "lavfi", "-i", "anullsrc=channel_layout=mono:sample_rate=8000", "-t", "7300"));
        assertThat(takes.ofEpisode(school.student(), school.episodeId())).isEmpty();
        assertThat(files()).isEqualTo(before);
        // other tests' work may go on decoding in the background: what must not be is a process of this test that stays
        List<ProcessHandle> started = ProcessHandle.current().descendants().filter(child -> child.info().command().orElse("").contains("ff"))
                .filter(child -> child.info().startInstant().filter(start::isBefore).isPresent()).toList();
        Schools.await(() -> started.stream().noneMatch(ProcessHandle::isAlive));
    }

    private void refuses(String code, Path file) {
        assertThatThrownBy(() -> bring(file)).as(file.getFileName().toString()).isInstanceOf(Refusal.class).hasMessage(code);
    }

    private Set<Path> files() throws IOException {
        try (Stream<Path> all = Files.walk(properties.folder().resolve("arriving"))) {
            return all.filter(Files::isRegularFile).collect(Collectors.toSet());
        }
    }

    private float[] samples(Take take) {
        try (RandomAccessSound sound = sounds.open(take.id(), Treatment.NONE)) {
            float[][] samples = new float[sound.channels()][(int) sound.frames()];
            sound.readAt(0, samples, 0, samples[0].length);
            return samples[0];
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Upward crossings a second in the middle of a take, of a tone that stands well above the noise of eight bits. */
    private double crossings(Take take) {
        float[] samples = samples(take);
        Span middle = new Span(samples.length / 4, 3L * samples.length / 4);
        int count = 0;
        boolean below = false;
        for (int i = (int) middle.startFrame(); i < middle.endFrame(); i++) {
            if (below && samples[i] > 0.03f) {
                count++;
                below = false;
            } else if (samples[i] < -0.03f) {
                below = true;
            }
        }
        return count / Frames.toSeconds(middle.frames());
    }

    private long loudest(Take take) {
        float[] samples = samples(take);
        int best = 0;
        for (int i = 1; i < samples.length; i++) {
            best = Math.abs(samples[i]) > Math.abs(samples[best]) ? i : best;
        }
        return best;
    }

    private Path write(String name, byte[] bytes) throws IOException {
        return Files.write(folder.resolve(name), bytes);
    }

    private static byte[] withDataLength(byte[] wav, int length) {
        byte[] changed = wav.clone();
        ByteBuffer.wrap(changed).order(ByteOrder.LITTLE_ENDIAN).putInt(indexOf(wav, "data") + 4, length);
        return changed;
    }

    /** An odd-sized chunk that nobody knows, between the format and the data. */
    private static byte[] withChunksInFront(byte[] wav) {
        int data = indexOf(wav, "data");
        byte[] odd = {'j', 'u', 'n', 'k', 3, 0, 0, 0, 1, 2, 3, 0};
        return concat(Arrays.copyOf(wav, data), odd, Arrays.copyOfRange(wav, data, wav.length));
    }

    /** A tag that claims to be much longer than it is. */
    private static byte[] brokenTag() {
        return concat("ID3".getBytes(StandardCharsets.US_ASCII), new byte[] {3, 0, 0, 0, 0, 0, 20}, "TIT2garbage".getBytes(StandardCharsets.US_ASCII),
                new byte[9]);
    }

    private static int indexOf(byte[] bytes, String word) {
        return new String(bytes, StandardCharsets.ISO_8859_1).indexOf(word);
    }

    private static byte[] concat(byte[]... parts) {
        ByteBuffer all = ByteBuffer.allocate(Arrays.stream(parts).mapToInt(part -> part.length).sum());
        Arrays.stream(parts).forEach(all::put);
        return all.array();
    }
}

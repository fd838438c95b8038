package org.mellowclass.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;

class MediaTest {

    private static final Tags TAGS = new Tags("Eels; the -i return", "Mudlark", "Tides and Tales", LocalDate.of(2026, 11, 25), "Waves by Ines; CC0 1.0");

    @TempDir
    Path folder;
    private SoundDecoder decoder;
    private SoundEncoder encoder;

    @BeforeEach
    void tools() {
        decoder = SoundDecoder.forUploads();
        encoder = new SoundEncoder(folder);
    }

    @Test
    void a_wav_is_decoded_at_its_own_rate_to_the_bit_whatever_its_name() throws Exception {
        Signal signal = Signal.sine(44_100, 440, 0, 0.5, -6, -9);
        Path file = wav("holiday.txt", signal);
        SoundFacts facts = decoder.probe(file);
        assertThat(facts.sampleRate()).isEqualTo(44_100);
        assertThat(facts.channels()).isEqualTo(2);
        assertThat(facts.seconds()).isCloseTo(0.5, within(0.001));
        assertThat(decoded(file).samples()[1]).isEqualTo(signal.samples()[1]);
    }

    @ParameterizedTest
    @ValueSource(ints = {8000, 22_050, 44_100, 96_000})
    void converting_in_the_child_process_keeps_every_moment_in_its_place(int rate) throws Exception {
        Path file = wav("a.wav", Signal.sine(rate, 1000, 0, 2, -6));
        Signal wanted = Signal.sine(48_000, 1000, 0, 2, -6);
        Path written = folder.resolve("written.wav");
        Signal read;
        try (SampleSource source = decoder.openInto(written, file, decoder.probe(file), 48_000)) {
            read = Signal.read(source);
        }
        try (WavReader source = WavReader.open(written)) {
            assertThat(Signal.read(source).samples()).isDeepEqualTo(read.samples());
        }
        assertThat(read.frames()).isCloseTo(96_000L, within(8L));
        // the hard start and end of the tone ring
        for (int i = 4000; i < 92_000; i++) {
            assertThat(read.samples()[0][i]).isCloseTo(wanted.samples()[0][i], within(1e-5f));
        }
    }

    @Test
    void what_the_lower_rate_cannot_keep_is_gone_after_converting() throws Exception {
        Path file = wav("a.wav", Signal.sine(96_000, 26_000, 0, 1, 0));
        try (SampleSource source = decoder.openInto(folder.resolve("written.wav"), file, decoder.probe(file), 48_000)) {
            float[] read = Signal.read(source).samples()[0];
            for (int i = 4000; i < 44_000; i++) {
                assertThat(read[i]).isCloseTo(0, within(1e-5f));
            }
        }
    }

    @Test
    void flac_holds_24_bits_and_every_frame() throws Exception {
        Signal signal = Signal.noise(2, -3, 1, 1);
        Path file = folder.resolve("a.flac");
        encoder.flac(signal.stream(), file);
        Signal read = decoded(file);
        assertThat(read.frames()).isEqualTo(signal.frames());
        for (int i = 0; i < read.frames(); i++) {
            assertThat(read.samples()[0][i]).isCloseTo(signal.samples()[0][i], within(2f / (1 << 23)));
        }
    }

    @Test
    void an_mp3_measures_right_when_decoded_and_carries_its_tags() throws Exception {
        Signal signal = Signal.concat(Signal.noise(2, -9, 4, 2), Signal.sine(2, 700, -12, 4));
        Mastering mastering = Mastering.find(signal::stream, -16, -1);
        Path file = folder.resolve("a.mp3");
        Mp3Publisher.Published published = new Mp3Publisher(encoder, decoder)
                .write(() -> mastering.apply(signal.stream()), -16, -1, TAGS, file);
        assertThat(published.loudnessLufs()).isCloseTo(-16, within(0.2));
        assertThat(published.truePeakDbtp()).isLessThanOrEqualTo(-1);
        assertThat(tag(file, "title")).isEqualTo(TAGS.title());
        assertThat(tag(file, "artist")).isEqualTo("Mudlark");
        assertThat(tag(file, "comment")).isEqualTo(TAGS.comment());
        assertThat(Files.list(folder)).containsExactly(file);
    }

    @Test
    void what_is_not_sound_is_refused_with_its_reason() throws Exception {
        refuses(SoundRefused.Reason.EMPTY, Files.createFile(folder.resolve("empty.wav")));
        refuses(SoundRefused.Reason.NOT_SOUND, Files.writeString(folder.resolve("a.wav"), "Dear diary, ".repeat(500)));
        Path list = Files.writeString(folder.resolve("list.wav"), "#EXTM3U\n#EXTINF:1,\nfile:///etc/passwd\n");
        refuses(SoundRefused.Reason.NOT_SOUND, list);
        Path concat = Files.writeString(folder.resolve("c.mp3"), "ffconcat version 1.0\nfile /etc/hostname\n");
        refuses(SoundRefused.Reason.NOT_SOUND, concat);
    }

    @ParameterizedTest
    @CsvSource({"m4a, aac", "mp4, aac", "mov, aac", "mp3, libmp3lame", "ogg, libvorbis", "flac, flac"})
    void what_a_coder_puts_before_and_behind_the_sound_is_taken_off_to_the_frame(String name, String codec) throws Exception {
        Path plain = wav("plain.wav", Signal.sine(44_100, 300, 0, 1.2345, -6));
        Signal back = decoded(ffmpeg(plain, folder.resolve("coded." + name), "-c:a", codec));
        Signal was = decoded(plain);
        assertThat(back.samples()[0]).hasSameSizeAs(was.samples()[0]);
        double error = IntStream.range(1000, 48_000).mapToDouble(i -> Math.abs(back.samples()[0][i] - was.samples()[0][i])).max().orElseThrow();
        assertThat(error).as("and starts where it started").isLessThan(0.1);
    }

    @Test
    void four_bits_a_sample_are_as_long_as_their_fact_chunk_says() throws Exception {
        Path plain = wav("plain.wav", Signal.sine(44_100, 300, 0, 1.2345, -6));
        Path coded = folder.resolve("coded.wav");
        assertThat(new ProcessBuilder("sox", plain.toString(), "-e", "ms-adpcm", coded.toString()).start().waitFor()).isZero();
        assertThat(decoded(coded).samples()[0]).hasSameSizeAs(decoded(plain).samples()[0]);
        byte[] bytes = Files.readAllBytes(coded);
        // a count that would take half of it away is a lie
        ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).putInt(new String(bytes, StandardCharsets.ISO_8859_1).indexOf("fact") + 8, 20_000);
        assertThat(decoded(Files.write(folder.resolve("lie.wav"), bytes)).samples()[0].length).isGreaterThan(54_000);
    }

    @Test
    void parts_that_cannot_be_decoded_are_left_out_and_that_is_said() throws Exception {
        Path mp3 = ffmpeg(wav("plain.wav", Signal.noise(1, -20, 4, 3)), folder.resolve("whole.mp3"), "-c:a", "libmp3lame");
        byte[] bytes = Files.readAllBytes(mp3);
        Arrays.fill(bytes, bytes.length / 2, bytes.length / 2 + 2000, (byte) 0x55);
        assertThat(damaged(mp3)).isFalse();
        assertThat(damaged(Files.write(folder.resolve("damaged.mp3"), bytes))).isTrue();
    }

    private boolean damaged(Path file) throws Exception {
        try (SoundDecoder.Decoded source = decoder.openInto(folder.resolve("out.wav"), file, decoder.probe(file), 48_000)) {
            assertThat(SampleSink.drain(source)).isPositive();
            return source.damaged();
        }
    }

    private static Path ffmpeg(Path from, Path to, String... options) throws Exception {
        List<String> command = new ArrayList<>(List.of("ffmpeg", "-nostdin", "-v", "error", "-i", from.toString()));
        command.addAll(List.of(options));
        command.add(to.toString());
        assertThat(new ProcessBuilder(command).inheritIO().start().waitFor()).isZero();
        return to;
    }

    @Test
    void hours_of_silence_in_a_small_file_meet_the_length_limit() throws Exception {
        // eight thousand seconds at 8 kHz of which the file system stores nothing
        Path file = wav("long.wav", Signal.sine(8000, 100, 0, 1, -6));
        try (RandomAccessFile sparse = new RandomAccessFile(file.toFile(), "rw")) {
            long dataBytes = 8000L * 8000 * 2;
            sparse.setLength(44 + dataBytes);
            sparse.seek(40);
            sparse.writeInt(Integer.reverseBytes((int) dataBytes));
        }
        refuses(SoundRefused.Reason.TOO_LONG, file);
        SoundFacts lie = new SoundFacts("wav", "pcm_s16le", 8000, 1, 1, 0, true);
        Path written = folder.resolve("written.wav");
        for (SampleSource source : List.of(decoder.open(file, lie), decoder.openInto(written, file, lie, 8000))) {
            try (source) {
                assertThatThrownBy(() -> SampleSink.drain(source)).isInstanceOf(IOException.class)
                        .hasCauseInstanceOf(SoundRefused.class);
            }
        }
    }

    @Test
    void a_killed_child_process_is_a_fault_of_the_machine_and_never_the_end_of_the_sound() throws Exception {
        Path file = folder.resolve("long.mp3");
        Process made = new ProcessBuilder("ffmpeg", "-v", "error", "-f", "lavfi", "-i", "anoisesrc=d=600:c=pink:r=44100", "-b:a", "64k", file.toString()).inheritIO().start();
        assertThat(made.waitFor()).isZero();
        SoundFacts facts = decoder.probe(file);
        for (boolean piped : List.of(true, false)) {
            try (SampleSource source = piped ? decoder.open(file, facts) : decoder.openInto(folder.resolve("long.wav"), file, facts, 48_000)) {
                float[][] block = new float[facts.channels()][4096];
                assertThat(source.read(block, 0, 4096)).isPositive();
                ProcessHandle.current().descendants().filter(child -> child.info().command().orElse("").endsWith("ffmpeg")).forEach(ProcessHandle::destroyForcibly);
                assertThatThrownBy(() -> {
                    while (source.read(block, 0, 4096) > 0) {
                        continue;
                    }
                }).isInstanceOf(MachineFault.class);
            }
        }
    }

    @Test
    void how_a_child_process_ended_says_whose_fault_it_was() {
        assertThat(MachineFault.is(0, "anything")).isFalse();
        assertThat(MachineFault.is(1, "Invalid data found when processing input")).as("a broken file").isFalse();
        assertThat(MachineFault.is(124, "")).as("the time is over").isTrue();
        assertThat(MachineFault.is(137, "")).as("killed").isTrue();
        assertThat(MachineFault.is(1, "pipe:1: No space left on device")).isTrue();
        assertThat(MachineFault.is(1, "Error: Cannot allocate memory")).isTrue();
    }

    @Test
    void closing_early_leaves_no_process_behind() throws Exception {
        Path file = wav("a.wav", Signal.noise(2, -6, 60, 3));
        SampleSource source = decoder.openInto(folder.resolve("written.wav"), file, decoder.probe(file), 44_100);
        assertThat(source.read(new float[2][100], 0, 100)).isEqualTo(100);
        List<ProcessHandle> children = ProcessHandle.current().descendants().toList();
        assertThat(children).isNotEmpty();
        source.close();
        for (ProcessHandle child : children) {
            child.onExit().get();
        }
        assertThat(children).noneMatch(ProcessHandle::isAlive);
    }

    private void refuses(SoundRefused.Reason reason, Path file) {
        assertThatThrownBy(() -> decoder.probe(file))
                .isInstanceOfSatisfying(SoundRefused.class, e -> assertThat(e.reason()).isEqualTo(reason));
    }

    private Signal decoded(Path file) throws Exception {
        try (SampleSource source = decoder.open(file, decoder.probe(file))) {
            return Signal.read(source);
        }
    }

    private Path wav(String name, Signal signal) throws IOException {
        Path file = folder.resolve(name);
        SampleFormat format = signal.rate() == 8000 ? SampleFormat.PCM_16 : SampleFormat.FLOAT_32;
        try (WavWriter writer = WavWriter.create(file, signal.channels(), signal.rate(), format)) {
            SampleSink.drain(signal.stream(), writer);
        }
        return file;
    }

    private static String tag(Path file, String name) throws IOException {
        Process probe = new ProcessBuilder("ffprobe", "-v", "error", "-show_entries", "format_tags=" + name,
                "-of", "default=noprint_wrappers=1:nokey=1", file.toString()).start();
        return new String(probe.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
    }
}

package org.mellowclass.media;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;

class PlainWavTest {

    private static final Signal TONE = Signal.sine(44_100, 440, 0, 0.5, -6, -9);

    @TempDir
    private Path folder;

    /** The format and the samples of a file, with another chunk between them. */
    private Path with(String name, int said, int really) throws IOException {
        Path plain = folder.resolve("plain.wav");
        try (WavWriter writer = WavWriter.create(plain, 2, 44_100, SampleFormat.PCM_16)) {
            SampleSink.drain(TONE.stream(), writer);
        }
        byte[] bytes = Files.readAllBytes(plain);
        int data = new String(bytes, 0, 200, StandardCharsets.ISO_8859_1).indexOf("data");
        ByteArrayOutputStream odd = new ByteArrayOutputStream();
        odd.write(bytes, 0, data);
        odd.write(ByteBuffer.allocate(8).order(ByteOrder.LITTLE_ENDIAN).put(name.getBytes(StandardCharsets.US_ASCII)).putInt(said).array());
        odd.write(new byte[really]);
        odd.write(bytes, data, bytes.length - data);
        return Files.write(folder.resolve("odd.wav"), odd.toByteArray());
    }

    @ParameterizedTest
    @CsvSource({"bext, 600, 600", "bext, 602, 600", "bext, 600, 602", "junk, 1000000000, 40", "LIST, 7, 7"})
    void an_odd_chunk_is_read_around_to_the_bit(String name, int said, int really) throws IOException {
        Path target = folder.resolve("read.wav");
        assertThat(PlainWav.write(with(name, said, really), target)).isTrue();
        try (WavReader read = WavReader.open(target); WavReader plain = WavReader.open(folder.resolve("plain.wav"))) {
            assertThat(read.sampleRate()).isEqualTo(44_100);
            assertThat(Signal.read(read).samples()).isDeepEqualTo(Signal.read(plain).samples());
        }
    }

    @Test
    void a_file_that_was_cut_off_keeps_what_came() throws IOException {
        Path whole = with("junk", 4, 4);
        byte[] bytes = Files.readAllBytes(whole);
        Path cut = Files.write(folder.resolve("cut.wav"), Arrays.copyOf(bytes, bytes.length / 2));
        Path target = folder.resolve("read.wav");
        assertThat(PlainWav.write(cut, target)).isTrue();
        try (WavReader read = WavReader.open(target)) {
            assertThat(read.frames()).isBetween(TONE.frames() / 2 - 100L, (long) TONE.frames() / 2);
        }
    }

    @Test
    void what_is_no_wav_is_left_alone() throws IOException {
        Path text = Files.writeString(folder.resolve("a.wav"), "RIFF, said the frog. WAVE, said the sea. fmt and data were not there.");
        assertThat(PlainWav.write(text, folder.resolve("b.wav"))).isFalse();
        assertThat(PlainWav.write(Files.write(folder.resolve("short.wav"), new byte[5]), folder.resolve("b.wav"))).isFalse();
    }
}

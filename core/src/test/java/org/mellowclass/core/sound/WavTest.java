package org.mellowclass.core.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.testing.Signal;

class WavTest {

    @TempDir
    Path folder;

    @ParameterizedTest
    @EnumSource(SampleFormat.class)
    void what_was_written_is_read_again(SampleFormat format) throws IOException {
        Signal signal = Signal.noise(2, -1, 0.5, 1);
        Path file = write(signal, format);
        float step = format == SampleFormat.PCM_16 ? 2f / 32768 : 0;
        try (WavReader reader = WavReader.open(file)) {
            assertThat(reader.channels()).isEqualTo(2);
            assertThat(reader.sampleRate()).isEqualTo(Frames.RATE);
            assertThat(reader.frames()).isEqualTo(signal.frames());
            float[][] read = Signal.read(reader).samples();
            for (int i = 0; i < signal.frames(); i++) {
                assertThat(Math.abs(read[1][i] - signal.samples()[1][i])).isLessThanOrEqualTo(step);
            }
        }
    }

    @Test
    void reading_outside_the_sound_gives_silence() throws IOException {
        Path file = write(Signal.sine(1, 100, 0, 0.01), SampleFormat.FLOAT_32);
        try (WavReader reader = WavReader.open(file)) {
            float[][] block = {{9, 9, 9, 9, 9, 9}};
            reader.readAt(478, block, 1, 4);
            assertThat(block[0][0]).isEqualTo(9);
            assertThat(block[0][1]).isNotZero();
            assertThat(block[0]).endsWith(0, 0, 9);
            reader.readAt(-3, block, 0, 6);
            assertThat(block[0]).startsWith(0, 0, 0, 0).doesNotContain(9);
            reader.readAt(5000, block, 0, 6);
            assertThat(block[0]).containsOnly(0);
        }
    }

    @Test
    void what_is_no_number_is_silence_and_nothing_is_louder_than_36_dB_over_full_scale() throws IOException {
        Path file = write(Signal.of(Frames.RATE, new float[] {Float.NaN, Float.POSITIVE_INFINITY, -1e30f, 64, -0.5f}), SampleFormat.FLOAT_32);
        try (WavReader reader = WavReader.open(file)) {
            assertThat(Signal.read(reader).samples()[0]).containsExactly(0, 64, -64, 64, -0.5f);
        }
    }

    @Test
    void what_is_beyond_full_scale_is_held_in_16_bits_and_kept_in_float() throws IOException {
        Signal over = Signal.of(Frames.RATE, new float[] {1.5f, -1.5f});
        try (WavReader reader = WavReader.open(write(over, SampleFormat.FLOAT_32))) {
            assertThat(Signal.read(reader).samples()[0]).containsExactly(1.5f, -1.5f);
        }
        for (int value = -32768; value <= 32767; value++) {
            assertThat(Pcm16.of(value / 32768f)).isEqualTo((short) value);
            assertThat(Pcm16.of((value + 0.3f) / 32768f)).isEqualTo((short) value);
        }
        assertThat(Pcm16.of(1.5f)).isEqualTo((short) 32767);
        assertThat(Pcm16.of(-1.5f)).isEqualTo((short) -32768);
    }

    @Test
    void other_files_are_refused() throws IOException {
        Path text = Files.writeString(folder.resolve("text.wav"), "this is not a recording at all, only words");
        assertThatThrownBy(() -> WavReader.open(text)).isInstanceOf(IOException.class).hasMessageContaining("RIFF");
        Path empty = Files.createFile(folder.resolve("empty.wav"));
        assertThatThrownBy(() -> WavReader.open(empty)).isInstanceOf(IOException.class);
    }

    private Path write(Signal signal, SampleFormat format) throws IOException {
        Path file = folder.resolve("sound.wav");
        try (WavWriter writer = WavWriter.create(file, signal.channels(), Frames.RATE, format)) {
            SampleSink.drain(signal.stream(), writer);
        }
        return file;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2})
    void a_file_in_memory_is_the_same_as_one_that_is_written(int channels) throws IOException {
        Signal signal = Signal.noise(channels, -1, 0.1, 3);
        assertThat(WavWriter.bytesOf(signal.samples())).isEqualTo(Files.readAllBytes(write(signal, SampleFormat.PCM_16)));
    }

    /** Two sides go another way than one or three, to the same values. */
    @Test
    void samples_of_two_sides_are_rounded_and_held_at_full_scale_as_any_others() {
        float[] left = {0, 1, -1, 1.5f, -7, 0.49f / 32768, 0.51f / 32768, -0.51f / 32768, 32766.5f / 32768, -32767.4f / 32768, Float.POSITIVE_INFINITY};
        float[] right = {-0.25f, 0.75f / 32768, Float.NEGATIVE_INFINITY, 1e-30f, 0.5f, -0.5f, 0.1f, 0.2f, 0.3f, 0.4f, 1};
        ByteBuffer both = ByteBuffer.wrap(Pcm16.interleaved(new float[][] {left, right}, left.length)).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < left.length; i++) {
            for (float sample : new float[] {left[i], right[i]}) {
                long nearest = Math.round(Math.rint(sample * 32768.0));
                assertThat(both.getShort()).as("sample %s", sample).isEqualTo((short) Math.max(-32768, Math.min(32767, nearest)));
            }
        }
    }
}

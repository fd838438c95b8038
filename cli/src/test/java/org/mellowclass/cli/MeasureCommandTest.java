package org.mellowclass.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;
import picocli.CommandLine;

class MeasureCommandTest {

    @TempDir
    private Path folder;
    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    @Test
    void a_tone_is_measured_at_its_own_rate_with_every_channel() throws IOException {
        Path file = write("tone.wav", Signal.sine(44_100, 1000, 0, 20, -23, -23));
        assertThat(measure(file)).isZero();
        JsonNode tone = printed().get(0);
        assertThat(tone.get("file").asText()).isEqualTo(file.toString());
        assertThat(tone.get("sampleRate").asInt()).isEqualTo(44_100);
        assertThat(tone.get("channels").asInt()).isEqualTo(2);
        assertThat(tone.get("seconds").asDouble()).isEqualTo(20);
        for (String loudness : List.of("integratedLufs", "maxMomentaryLufs", "maxShortTermLufs")) {
            assertThat(tone.get(loudness).asDouble()).isCloseTo(-23, within(0.1));
        }
        assertThat(tone.get("samplePeakDbfs").asDouble()).isCloseTo(-23, within(0.01));
        assertThat(tone.get("truePeakDbtp").asDouble()).isCloseTo(-23, within(0.2));
        assertThat(tone.get("loudnessRangeLu").asDouble()).isCloseTo(0, within(0.1));
        assertThat(tone.get("clippedRuns")).isEmpty();
    }

    @Test
    void five_channels_without_low_frequency_effects_have_the_weights_of_the_standard() throws IOException {
        assertThat(measure(write("surround.wav", Signal.sine(48_000, 1000, 0, 20, -28, -28, -24, -30, -30)))).isZero();
        JsonNode sound = printed().get(0);
        assertThat(sound.get("channels").asInt()).isEqualTo(5);
        assertThat(sound.get("integratedLufs").asDouble()).isCloseTo(-23, within(0.1));
    }

    @Test
    void silence_is_null_and_never_infinite() throws IOException {
        assertThat(measure(write("silence.wav", Signal.silence(1, 2)))).isZero();
        JsonNode silence = printed().get(0);
        for (String value : List.of("integratedLufs", "maxMomentaryLufs", "maxShortTermLufs", "loudnessRangeLu",
                "truePeakDbtp", "samplePeakDbfs", "noiseFloorDbfs")) {
            assertThat(silence.get(value).isNull()).as(value).isTrue();
        }
        assertThat(silence.get("dcOffset").asDouble()).isZero();
    }

    @Test
    void clipped_runs_carry_their_channel_their_start_in_seconds_and_their_length() throws IOException {
        Signal signal = Signal.noise(2, -3, 1, 7);
        for (int i = 24_000; i < 24_005; i++) {
            signal.samples()[1][i] = -1;
        }
        assertThat(measure(write("clipped.wav", signal))).isZero();
        assertThat(printed().get(0).get("clippedRuns").toString())
                .isEqualTo("[{\"channel\":1,\"startSeconds\":0.5,\"frames\":5}]");
    }

    @Test
    void a_file_that_cannot_be_read_gets_a_sentence_and_the_others_are_measured() throws IOException {
        Path text = Files.writeString(folder.resolve("homework.wav"), "This is not a sound, whatever its name says.");
        Path empty = Files.createFile(folder.resolve("empty.wav"));
        Path tone = write("tone.wav", Signal.sine(1, 1000, -23, 2));
        assertThat(measure(text, folder.resolve("nowhere.wav"), tone, empty)).isEqualTo(1);
        assertThat(printed()).singleElement().satisfies(found ->
                assertThat(found.get("file").asText()).isEqualTo(tone.toString()));
        assertThat(err.toString().lines()).containsExactly(text + " is not a sound file.",
                folder.resolve("nowhere.wav") + " could not be read. Is it there, and may you read it?", empty + " is empty.");
    }

    private int measure(Path... files) {
        CommandLine line = Sound.commandLine().setOut(new PrintWriter(out)).setErr(new PrintWriter(err));
        return line.execute(Stream.concat(Stream.of("measure"), Stream.of(files).map(Path::toString)).toArray(String[]::new));
    }

    private List<JsonNode> printed() throws IOException {
        ObjectMapper json = new ObjectMapper();
        try (var values = json.readerFor(JsonNode.class).<JsonNode>readValues(out.toString())) {
            return values.readAll();
        }
    }

    private Path write(String name, Signal signal) throws IOException {
        Path file = folder.resolve(name);
        try (WavWriter writer = WavWriter.create(file, signal.channels(), signal.rate(), SampleFormat.FLOAT_32)) {
            SampleSink.drain(signal.stream(), writer);
        }
        return file;
    }
}

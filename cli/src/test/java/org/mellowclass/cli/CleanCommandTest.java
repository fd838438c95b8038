package org.mellowclass.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.SungVoice;
import picocli.CommandLine;

/** {@code check}, {@code clean} and {@code recipes}. */
class CleanCommandTest {

    private static final List<String> KINDS = List.of("LOUDNESS", "TRUE_PEAK", "CLIPPING", "WORKING_LEVEL", "LOUDNESS_RANGE", "ROOM_NOISE", "HUM", "DEAD_AIR", "STARTS_AND_ENDS",
            "DROPOUTS", "SIDES", "BURSTS", "SIBILANCE");

    @TempDir
    private Path folder;
    private StringWriter out;
    private StringWriter err;
    private Path take;

    @BeforeEach
    void build() throws IOException {
        float[] sound = SungVoice.of(10 * Frames.RATE);
        Random random = new Random(3);
        for (int i = 0; i < sound.length; i++) {
            double within = (double) (i % (5 * Frames.RATE / 2)) / Frames.RATE;
            double phrase = within > 0.8 && within < 2.3 ? Math.min(1, Math.min(within - 0.8, 2.3 - within) / 0.05) : 0;
            sound[i] = (float) (0.3 * phrase * sound[i] + 0.006 * random.nextGaussian()
                    + 0.01 * Math.sin(2 * Math.PI * 50 * i / Frames.RATE) + 0.006 * Math.sin(2 * Math.PI * 150 * i / Frames.RATE));
        }
        take = write("take.wav", Signal.of(Frames.RATE, sound));
    }

    @Test
    void a_check_prints_every_reading_with_its_verdict() throws IOException {
        assertThat(run("check", take.toString(), "--house", "broadcast")).isZero();
        JsonNode check = printed();
        assertThat(check.get("file").asText()).isEqualTo(take.toString());
        assertThat(check.get("seconds").asDouble()).isEqualTo(10);
        List<String> kinds = new ArrayList<>();
        check.get("readings").forEach(reading -> {
            kinds.add(reading.get("kind").asText());
            assertThat(reading.get("verdict").asText()).isIn("good", "check", "fix", "none");
            assertThat(reading.has("value") && reading.has("unit") && reading.get("places").isArray()).isTrue();
        });
        assertThat(kinds).isEqualTo(KINDS);
        assertThat(reading(check, "HUM").get("value").asDouble()).isEqualTo(50);
        assertThat(reading(check, "HUM").get("verdict").asText()).isEqualTo("fix");
        assertThat(reading(check, "SIDES").get("verdict").asText()).isEqualTo("none");
        assertThat(reading(check, "STARTS_AND_ENDS").get("value").asDouble()).isCloseTo(0.8, within(0.1));
    }

    @Test
    void silence_has_no_values_and_nothing_infinite() throws IOException {
        assertThat(run("check", write("silence.wav", Signal.silence(2, 3)).toString())).isZero();
        assertThat(out.toString()).doesNotContain("NaN", "Infinity");
        assertThat(reading(printed(), "LOUDNESS").get("value").isNull()).isTrue();
        assertThat(reading(printed(), "LOUDNESS").get("verdict").asText()).isEqualTo("none");
    }

    private static JsonNode reading(JsonNode check, String kind) {
        for (JsonNode reading : check.get("readings")) {
            if (reading.get("kind").asText().equals(kind)) {
                return reading;
            }
        }
        throw new AssertionError("no " + kind);
    }

    @Test
    void cleaning_writes_a_sound_that_is_as_long_and_says_what_it_did() throws IOException {
        Path cleaned = folder.resolve("cleaned.wav");
        assertThat(run("clean", "--step", "hum-out", "--step", "noise-down:12", take.toString(), cleaned.toString())).isZero();
        try (WavReader was = WavReader.open(take); WavReader is = WavReader.open(cleaned)) {
            assertThat(is.frames()).isEqualTo(was.frames());
        }
        JsonNode said = printed();
        assertThat(said.get("before").get("humHz").asDouble()).isCloseTo(50, within(0.05));
        assertThat(said.get("after").get("humHz").isNull()).isTrue();
        assertThat(said.get("after").get("voiceToRoomLu").asDouble()).isGreaterThan(said.get("before").get("voiceToRoomLu").asDouble() + 9);
        assertThat(said.get("harm").has("onsetLossDb")).isTrue();
        assertThat(said.get("warnings")).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "--step ceiling:-1 --step loudness:-16 | ceiling must be the last",
        "--step noise-down:99 | out of its range",
        "--step sparkle | There is no such step",
        "--step low-cut:x | A step is written",
        "--recipe disco | There is no recipe disco",
        "--step noise-down:12 --room 0.9-1.9 | Somebody speaks there",
        "--step noise-down:12 --room 0-0.1 | half a second",
        "--step noise-down:12 --room soon | is not a number"})
    void what_cannot_be_done_is_said_and_nothing_is_written(String asked, String sentence) {
        List<String> arguments = new ArrayList<>(List.of("clean"));
        arguments.addAll(List.of(asked.split(" ")));
        arguments.addAll(List.of(take.toString(), folder.resolve("out.wav").toString()));
        assertThat(run(arguments.toArray(String[]::new))).isEqualTo(1);
        assertThat(err.toString()).contains(sentence);
        assertThat(folder.resolve("out.wav")).doesNotExist();
    }

    @Test
    void a_file_that_is_none_gets_a_sentence() throws IOException {
        Path page = Files.writeString(folder.resolve("page.wav"), "<html>");
        assertThat(run("check", page.toString())).isEqualTo(1);
        assertThat(err.toString()).contains("is not a sound file");
        assertThat(run("clean", "--recipe", "quiet-room", page.toString(), folder.resolve("out.wav").toString())).isEqualTo(1);
        assertThat(run("check", take.toString(), "--house", "cinema")).isEqualTo(2);
    }

    @Test
    void every_recipe_that_is_listed_can_be_done_as_its_steps() throws IOException {
        assertThat(run("recipes")).isZero();
        JsonNode listed = printed();
        assertThat(listed.get("steps")).hasSizeGreaterThan(10);
        for (JsonNode recipe : listed.get("recipes")) {
            assertThat(run("clean", "--recipe", recipe.get("name").asText(), take.toString(), folder.resolve("a.wav").toString())).isZero();
            List<String> arguments = new ArrayList<>(List.of("clean"));
            recipe.get("steps").forEach(step -> arguments.addAll(List.of("--step", step.asText())));
            arguments.addAll(List.of(take.toString(), folder.resolve("b.wav").toString()));
            assertThat(run(arguments.toArray(String[]::new))).isZero();
            assertThat(folder.resolve("b.wav")).hasSameBinaryContentAs(folder.resolve("a.wav"));
        }
    }

    private int run(String... arguments) {
        out = new StringWriter();
        err = new StringWriter();
        CommandLine line = Sound.commandLine();
        return line.setOut(new PrintWriter(out)).setErr(new PrintWriter(err)).execute(arguments);
    }

    private JsonNode printed() throws IOException {
        return new ObjectMapper().readTree(out.toString());
    }

    private Path write(String name, Signal signal) throws IOException {
        Path file = folder.resolve(name);
        try (WavWriter writer = WavWriter.create(file, signal.channels(), Frames.RATE, SampleFormat.FLOAT_32)) {
            SampleSink.drain(signal.stream(), writer);
        }
        return file;
    }
}

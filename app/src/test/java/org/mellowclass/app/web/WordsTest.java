package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.board.ClassBoard;
import org.mellowclass.app.board.Stage;
import org.mellowclass.app.brief.Brief;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.recording.RecentPeaks;
import org.mellowclass.app.review.MarginNote;
import org.mellowclass.app.roster.RosterPlan;
import org.mellowclass.app.roster.RosterReader;
import org.mellowclass.core.cleanup.CleanupRefused;
import org.mellowclass.core.cleanup.Forecast;
import org.mellowclass.core.cleanup.Harm;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.publish.AirGate;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.HouseSound;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.Verdict;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.media.SoundRefused;

class WordsTest {

    private final Words words = new Words();

    @Test
    void lengths_and_times_are_written_as_people_say_them() {
        Instant now = Instant.parse("2026-11-25T13:00:00Z");
        assertThat(words.seconds(Frames.ofMillis(3_400))).isEqualTo("3.4 s");
        assertThat(words.seconds(Frames.ofSeconds(65))).isEqualTo("1:05");
        assertThat(words.ago(now.minusSeconds(20), now)).isEqualTo("a moment");
        assertThat(words.ago(now.minusSeconds(40 * 60), now)).isEqualTo("40 min");
        assertThat(words.ago(now.minusSeconds(5 * 3600), now)).isEqualTo("5 h");
        assertThat(words.ago(now.minusSeconds(72 * 3600), now)).isEqualTo("3 days");
        assertThat(words.since(Instant.parse("2026-11-23T23:30:00Z"), now, "Europe/London")).isEqualTo("since Monday");
        assertThat(words.since(Instant.parse("2026-11-23T23:30:00Z"), now, "Europe/Berlin")).as("in the school's zone").isEqualTo("since Tuesday");
        assertThat(words.since(Instant.parse("2026-11-02T12:00:00Z"), now, "Europe/London")).isEqualTo("since Monday 2 November");
    }

    @Test
    void everything_that_can_be_said_has_words() throws IOException {
        List<String> codes = new ArrayList<>();
        add(codes, "refusal.edit.", EditRefused.Reason.values());
        add(codes, "refusal.take.", SoundRefused.Reason.values());
        add(codes, "problem.", SoundRefused.Reason.values());
        add(codes, "refusal.air.", AirGate.Missing.values());
        add(codes, "stage.", Stage.values());
        add(codes, "note.", MarginNote.Kind.values());
        add(codes, "verdict.", Verdict.values());
        add(codes, "roster.kind.", RosterPlan.Kind.NEW, RosterPlan.Kind.JOINS, RosterPlan.Kind.CHANGED, RosterPlan.Kind.SAME);
        add(codes, "roster.problem.", RosterReader.Problem.values());
        add(codes, "consent.", Consent.values());
        add(codes, "format.", Brief.OutputFormat.values());
        add(codes, "recipe.", Brief.Recipe.values());
        Stream.of(StarterRecipe.values()).forEach(it -> codes.addAll(List.of("recipe." + it, "recipe." + it + ".when")));
        add(codes, "step.", StepKind.values());
        add(codes, "harm.", Harm.Kind.values());
        add(codes, "forecast.", Forecast.Kind.values());
        add(codes, "refusal.cleanup.", CleanupRefused.Reason.values());
        add(codes, "preset.", HouseSound.Preset.values());
        add(codes, "running.", RecentPeaks.Word.values());
        add(codes, "waiting.", ClassBoard.Waiting.values());
        Stream.of(StereoFinder.Noticed.values()).filter(it -> it != StereoFinder.Noticed.NOTHING)
                .forEach(it -> codes.addAll(List.of("noticed." + it, "fix." + it)));
        for (Reading.Kind kind : Reading.Kind.values()) {
            codes.add("reading." + kind);
            add(codes, "reading." + kind + ".", new Object[] {Verdict.GOOD, Verdict.CHECK, Verdict.FIX});
        }
        assertThat(bundle().stringPropertyNames()).containsAll(codes);
    }

    @Test
    void what_a_reading_says_has_at_most_twelve_words() throws IOException {
        Properties bundle = bundle();
        assertThat(bundle.stringPropertyNames().stream().filter(code -> code.startsWith("reading.")))
                .allSatisfy(code -> assertThat(bundle.getProperty(code).split(" ")).hasSizeLessThanOrEqualTo(12));
    }

    @Test
    void numbers_and_lengths_are_written_for_people() {
        assertThat(words.clock(48_000L * 65 + 47_999)).isEqualTo("1:05");
        assertThat(words.decimal(-16.04)).isEqualTo("−16.0");
        assertThat(words.decimal(-0.04)).isEqualTo("0.0");
        assertThat(words.span(new Span(48_000, 48_000L * 61 + 24_480))).isEqualTo("0:01.00 to 1:01.51");
    }

    @Test
    void times_are_read_as_people_write_them() {
        assertThat(words.frames("1:05.5")).hasValue(48_000L * 65 + 24_000);
        assertThat(words.frames(" 12,25 ")).hasValue(48_000L * 12 + 12_000);
        assertThat(words.frames("7")).hasValue(48_000L * 7);
        for (String none : new String[] {"", "soon", "1:2:3", "-1", "1.2345", null}) {
            assertThat(words.frames(none)).as("%s", none).isEmpty();
        }
    }

    @Test
    void a_skyline_picture_stands_on_its_baseline_and_ends_at_its_width() {
        byte[] bins = {(byte) 255, (byte) 255, 0, 0, (byte) 128, (byte) 128};
        SkylinePicture picture = SkylinePicture.of(bins, 3);
        assertThat(picture.body()).startsWith("M0 100L0.0 0.0H333.3L333.3 100.0").endsWith("L1000 100Z");
        assertThat(picture.peaks()).startsWith("M0.0 0.0H333.3");
        assertThat(SkylinePicture.of(new byte[0], 10).body()).endsWith("Z").doesNotContain("NaN");
    }

    private static void add(List<String> codes, String prefix, Object... values) {
        Stream.of(values).map(value -> prefix + value).forEach(codes::add);
    }

    private Properties bundle() throws IOException {
        Properties properties = new Properties();
        try (InputStreamReader reader = new InputStreamReader(
                getClass().getResourceAsStream("/messages.properties"), StandardCharsets.UTF_8)) {
            properties.load(reader);
        }
        return properties;
    }
}

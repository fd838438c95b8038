package org.mellowclass.app.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.LayTake;
import org.mellowclass.core.timeline.Remove;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

class TimelineCodecTest {

    private final TimelineCodec codec = new TimelineCodec();

    private static final Timeline EXAMPLE = new Timeline(List.of(
            new Track(1, "Noor", 1, 0, false, List.of(new Clip(2, 70, 0, 480, 96_000, -1.5, 240, 0),
                    new Clip(4, 70, 96_000, 120_000, 48_000, 0, 240, 240))),
            new Track(3, "Tide music", 2, -6, true, List.of())), 5);

    @Test
    void version_1_is_written_and_read_as_it_always_was() throws IOException {
        assertThat(TimelineCodec.FORMAT_VERSION).isEqualTo(1);
        try (var golden = getClass().getResourceAsStream("/bench/timeline-v1.json")) {
            assertThat(codec.toJson(EXAMPLE)).isEqualTo(new String(golden.readAllBytes(), StandardCharsets.UTF_8).strip());
        }
        assertThat(codec.inflated(1, codec.deflated(EXAMPLE))).isEqualTo(EXAMPLE);
        assertThat(codec.hash(EXAMPLE)).isEqualTo("413f5655a4e43b11f1fccc6143a6c13598993da52c372ef84a9e9b4789628300");
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
    void any_timeline_comes_back_equal_and_equal_timelines_have_one_hash(long seed) {
        Timeline timeline = Timelines.generate(new Random(seed));
        Timeline back = codec.inflated(TimelineCodec.FORMAT_VERSION, codec.deflated(timeline));
        assertThat(back).isEqualTo(timeline);
        assertThat(codec.hash(back)).isEqualTo(codec.hash(timeline));
        assertThat(codec.hash(Timelines.generate(new Random(seed + 100)))).isNotEqualTo(codec.hash(timeline));
    }

    @Test
    void edits_are_written_with_their_names() {
        assertThat(codec.toJson(new Remove(new Span(1, 9), Set.of(3L))))
                .isEqualTo("{\"type\":\"remove\",\"span\":{\"startFrame\":1,\"endFrame\":9},\"trackIds\":[3]}");
        assertThat(codec.toJson(new LayTake(7, 99, 0, "Noor"))).startsWith("{\"type\":\"lay-take\",\"takeId\":7,");
    }

    @Test
    void an_unknown_version_is_not_guessed_at() {
        assertThatThrownBy(() -> codec.inflated(99, codec.deflated(EXAMPLE))).hasMessageContaining("99");
    }
}

package org.mellowclass.app.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.app.sounds.FormerTakes;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Treatment;

class TimelineCodecTest {

    private final TimelineCodec codec = new TimelineCodec();

    private static final Treatment MENDED = Treatment.of(new ChooseSides(Sides.LEFT), new RedrawTops(), new CorrectClock(89.5));

    private static final Fade MEETING = Fade.EDGE.meeting(Fade.Seam.EQUAL_POWER);

    private static Timeline example(Source noor, Treatment ofRoom, Source late) {
        return new Timeline(List.of(
                new Track(1, "Noor", 1, 0, false, List.of(
                        new Clip(2, noor, 0, 480, 96_000, -1.5, Fade.EDGE, Fade.NONE),
                        new Clip(6, new RoomSource(70, ofRoom, 9_600, 48_000), 96_000, 0, 4_800, 0, Fade.EDGE, Fade.EDGE),
                        new Clip(4, late, 100_800, 120_000, 48_000, 0, new Fade(960, Fade.Shape.EQUAL_POWER, 100, 240), Fade.EDGE))),
                new Track(3, "Tide music", 2, -6, true, List.of())), List.of(new Flag(5, 1, 4_000, "bells")), 7);
    }

    /** What version 3 could say of it. */
    private static final Timeline EXAMPLE_3 = example(new TakeSource(70, MENDED), Treatment.of(new RedrawTops()), new TakeSource(70));

    private static final Timeline EXAMPLE = EXAMPLE_3.mapTracks(track -> track.id() != 1 ? track
            : track.withPan(-0.25).withCurve(new VolumeCurve(List.of(new VolumeCurve.Point(0, VolumeCurve.SILENT_DB), new VolumeCurve.Point(48_000, -3.5))))
                    .mapClips(clip -> clip.id() == 2 ? clip.withFades(clip.fadeIn(), MEETING) : clip.id() == 6 ? clip.withFades(MEETING, clip.fadeOut()) : clip), 7);

    /** What version 1 could say of it. */
    private static final Timeline OLD_EXAMPLE = new Timeline(List.of(
            new Track(1, "Noor", 1, 0, false, List.of(
                    new Clip(2, new TakeSource(70), 0, 480, 96_000, -1.5, gentle(240), Fade.NONE),
                    new Clip(4, new TakeSource(70), 96_000, 120_000, 48_000, 0, gentle(240), gentle(240)))),
            new Track(3, "Tide music", 2, -6, true, List.of())), List.of(), 5);

    private static final TimelineCodec.Formers NONE_WAS_MADE = takeId -> Optional.empty();

    @Test
    void version_5_is_written_and_read_as_it_always_was() throws IOException {
        assertThat(TimelineCodec.FORMAT_VERSION).isEqualTo(5);
        assertThat(json(codec.written(EXAMPLE))).isEqualTo(golden("/bench/timeline-v5.json"));
        assertThat(codec.inflated(5, codec.written(EXAMPLE).deflated(), NONE_WAS_MADE)).isEqualTo(EXAMPLE);
        assertThat(codec.hash(EXAMPLE)).isEqualTo("9e7a8d7ab25589b59e4e900844090e22d086529ccb52d24324cda03b1bd87fb9");
    }

    @Test
    void version_4_is_still_read() throws IOException {
        assertThat(codec.inflated(4, stored("/bench/timeline-v4.json"), NONE_WAS_MADE)).isEqualTo(EXAMPLE);
    }

    @Test
    void version_3_is_still_read() throws IOException {
        assertThat(codec.inflated(3, stored("/bench/timeline-v3.json"), NONE_WAS_MADE)).isEqualTo(EXAMPLE_3);
    }

    @Test
    void version_2_is_still_read_and_takes_that_were_made_of_others_are_treatments_of_these() throws IOException {
        assertThat(codec.inflated(2, stored("/bench/timeline-v2.json"), NONE_WAS_MADE))
                .isEqualTo(example(new TakeSource(70), Treatment.NONE, new TakeSource(70)));
        Timeline made = codec.inflated(2, stored("/bench/timeline-v2.json"),
                takeId -> Optional.of(new FormerTakes.Former(12, Treatment.of(new RedrawTops()))));
        assertThat(made.clipsOf(12)).hasSize(3).extracting(clip -> clip.source().treatment()).containsOnly(Treatment.of(new RedrawTops()));
    }

    @Test
    void version_1_is_still_read() throws IOException {
        assertThat(codec.inflated(1, stored("/bench/timeline-v1.json"), NONE_WAS_MADE)).isEqualTo(OLD_EXAMPLE);
    }

    private static String json(TimelineCodec.Written written) throws IOException {
        return new String(new InflaterInputStream(new ByteArrayInputStream(written.deflated())).readAllBytes(), StandardCharsets.UTF_8);
    }

    private byte[] stored(String golden) throws IOException {
        ByteArrayOutputStream stored = new ByteArrayOutputStream();
        try (DeflaterOutputStream deflater = new DeflaterOutputStream(stored)) {
            deflater.write(golden(golden).getBytes(StandardCharsets.UTF_8));
        }
        return stored.toByteArray();
    }

    private static Fade gentle(long frames) {
        return new Fade(frames, Fade.Shape.GENTLE, 0, 0);
    }

    private String golden(String name) throws IOException {
        try (var file = getClass().getResourceAsStream(name)) {
            return new String(file.readAllBytes(), StandardCharsets.UTF_8).strip();
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
    void any_timeline_comes_back_equal_and_equal_timelines_have_one_hash(long seed) {
        Timeline timeline = Timelines.generate(new Random(seed));
        Timeline back = codec.inflated(TimelineCodec.FORMAT_VERSION, codec.written(timeline).deflated(), NONE_WAS_MADE);
        assertThat(back).isEqualTo(timeline);
        assertThat(codec.hash(back)).isEqualTo(codec.hash(timeline));
        Edit edit = Timelines.edit(timeline, new Random(seed));
        assertThat(codec.toJson(edit)).startsWith("{\"type\":\"");
        assertThat(codec.hash(Timelines.generate(new Random(seed + 100)))).isNotEqualTo(codec.hash(timeline));
    }

    @Test
    void edits_are_written_with_their_names() {
        assertThat(codec.toJson(new Remove(new Span(1, 9), Set.of(3L))))
                .isEqualTo("{\"type\":\"remove\",\"span\":{\"startFrame\":1,\"endFrame\":9},\"trackIds\":[3],\"alongIds\":[]}");
        assertThat(codec.toJson(new LayTake(7, 99, 0, "Noor"))).startsWith("{\"type\":\"lay-take\",\"takeId\":7,");
    }

    @Test
    void an_unknown_version_is_not_guessed_at() {
        assertThatThrownBy(() -> codec.inflated(99, codec.written(EXAMPLE).deflated(), NONE_WAS_MADE)).hasMessageContaining("99");
    }
}

package org.mellowclass.core.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.AfterEdits;
import org.mellowclass.core.testing.Seeds;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.MuteTrack;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.SetTrackGain;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.treatment.ChooseSides;

class SameWordsTest {

    /** Music above the voice: the voice leads all the same. */
    private static final Timeline PAGE = new Timeline(List.of(
            new Track(1, "Music", 1, 0, false, List.of(Timelines.clip(2, 8, 0, 0, 480_000))),
            new Track(3, "Noor", 1, 0, false, List.of(Timelines.clip(4, 7, 48_000, 0, 384_000)))), List.of(), 5);

    private static Timeline after(Edit edit) {
        return edit.applyTo(PAGE, TAKES).timeline();
    }

    private static List<SameWords.Stretch> sinceThen(Timeline is) {
        return SameWords.of(PAGE, is, take -> take == 7);
    }

    @Test
    void what_follows_a_cut_was_said_later_than_it_is_now_and_the_voice_leads_where_music_did_not_move() {
        assertThat(sinceThen(after(new Remove(new Span(100_000, 148_000), Set.of(3L))))).containsExactly(
                new SameWords.Stretch(new Span(0, 48_000), 0), new SameWords.Stretch(new Span(48_000, 100_000), 48_000),
                new SameWords.Stretch(new Span(100_000, 384_000), 148_000), new SameWords.Stretch(new Span(384_000, 480_000), 384_000));
    }

    @Test
    void another_gain_or_treatment_says_the_same_words() {
        Timeline other = new Treat(7, new ChooseSides(Sides.LEFT)).applyTo(after(new SetTrackGain(3, -12)), TAKES).timeline();
        assertThat(sinceThen(other)).contains(new SameWords.Stretch(new Span(48_000, 432_000), 48_000));
    }

    @Test
    void a_track_that_is_left_out_says_nothing() {
        assertThat(sinceThen(after(new MuteTrack(3, true)))).containsExactly(new SameWords.Stretch(new Span(0, 480_000), 0));
        assertThat(SameWords.of(after(new MuteTrack(3, true)), PAGE, take -> take == 7)).containsExactly(
                new SameWords.Stretch(new Span(0, 48_000), 0), new SameWords.Stretch(new Span(432_000, 480_000), 432_000));
    }

    static IntStream seeds() {
        return Seeds.first(60);
    }

    /** Frame by frame, as it is defined. */
    @ParameterizedTest
    @MethodSource("seeds")
    void after_whatever_edits_each_frame_is_led_to_one_that_plays_the_same_frame_of_the_same_take(int seed) {
        Random random = new Random(seed);
        Timeline was = AfterEdits.someTimes(PAGE, random, 8);
        Timeline is = AfterEdits.someTimes(was, random, 8);
        List<SameWords.Stretch> stretches = SameWords.of(was, is, take -> take == 7);
        for (int i = 0; i < 60; i++) {
            long frame = random.nextLong(Math.max(1, is.endFrame()));
            Optional<Played> now = leading(is, frame);
            List<SameWords.Stretch> here = stretches.stream().filter(stretch -> stretch.is().contains(frame)).toList();
            assertThat(here).as("seed %s frame %s", seed, frame).hasSizeLessThanOrEqualTo(1);
            boolean then = now.isPresent() && played(was).anyMatch(clip -> plays(clip, now.get()));
            assertThat(!here.isEmpty()).as("seed %s frame %s", seed, frame).isEqualTo(then);
            here.forEach(stretch -> {
                long wasFrame = stretch.wasFrame() + frame - stretch.is().startFrame();
                assertThat(played(was).filter(clip -> clip.span().contains(wasFrame)).map(clip -> at(clip, wasFrame))).as("seed %s frame %s", seed, frame).contains(now.get());
            });
        }
    }

    private record Played(long takeId, long takeFrame) {
    }

    private static boolean plays(Clip clip, Played played) {
        long first = at(clip, clip.startFrame()).takeFrame;
        return ((TakeSource) clip.source()).takeId() == played.takeId && played.takeFrame >= first && played.takeFrame < first + clip.frames();
    }

    private static Played at(Clip clip, long frame) {
        TakeSource take = (TakeSource) clip.source();
        return new Played(take.takeId(), take.treatment().toTake(clip.sourceFrame()) + frame - clip.startFrame());
    }

    /** Clips that are heard and go through their take as it was said. */
    private static Stream<Clip> played(Timeline timeline) {
        return timeline.tracks().stream().filter(track -> !track.muted()).flatMap(track -> track.clips().stream()).filter(clip -> clip.source() instanceof TakeSource take
                && take.treatment().toTake(clip.sourceFrame() + clip.frames()) - take.treatment().toTake(clip.sourceFrame()) == clip.frames());
    }

    private static Optional<Played> leading(Timeline timeline, long frame) {
        return played(timeline).filter(clip -> clip.span().contains(frame)).map(clip -> at(clip, frame)).min(Comparator.comparing(played -> played.takeId != 7));
    }
}

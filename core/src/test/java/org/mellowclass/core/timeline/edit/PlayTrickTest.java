package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.List;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.core.treatment.Trick;

class PlayTrickTest {

    /** Two takes of a second each one behind the other, music under both, and a flag behind the first. */
    private static final Timeline PAGE = new Timeline(List.of(
            new Track(1, "Noor", 1, 0, false, List.of(Timelines.clip(2, 1, 0, 5000, 48_000), Timelines.clip(3, 2, 48_000, 0, 48_000))),
            new Track(4, "Music", 1, 0, false, List.of(Timelines.clip(5, 3, 0, 0, 96_000)))), List.of(new Flag(6, 1, 60_000, "eels")), 7);

    private static PlayTrick slower(long from, long to) {
        return new PlayTrick(1, new Span(from, to), Trick.Kind.PACE, 50, Set.of(1L, 4L));
    }

    private static Timeline after(Edit edit, Timeline timeline) {
        return edit.applyTo(timeline, TAKES).timeline();
    }

    private static List<Clip> clips(Timeline timeline) {
        return timeline.track(1).orElseThrow().clips();
    }

    @Test
    void a_stretch_that_becomes_longer_moves_what_follows_on_the_tied_tracks() {
        Timeline after = after(slower(10_000, 20_000), PAGE);
        assertThat(clips(after)).extracting(Clip::startFrame, Clip::frames, Clip::sourceFrame, clip -> clip.source().treatment())
                .containsExactly(tuple(0L, 10_000L, 5000L, Treatment.NONE),
                        tuple(10_000L, 20_000L, 0L, Treatment.of(new Trick(Trick.Kind.PACE, 50, new Span(15_000, 25_000)))),
                        tuple(30_000L, 28_000L, 25_000L, Treatment.NONE), tuple(58_000L, 48_000L, 0L, Treatment.NONE));
        assertThat(after.flags().get(0).frame()).isEqualTo(70_000);
        assertThat(after.track(4).orElseThrow().clips()).extracting(Clip::startFrame, Clip::frames).containsExactly(tuple(0L, 20_000L), tuple(30_000L, 76_000L));
    }

    @Test
    void across_a_cut_each_clip_plays_its_own_stretch() {
        Timeline after = after(new PlayTrick(1, new Span(40_000, 56_000), Trick.Kind.TAPE, 200, Set.of(4L)), PAGE);
        assertThat(clips(after)).extracting(clip -> clip.source().takeId(), Clip::startFrame, Clip::frames)
                .containsExactly(tuple(1L, 0L, 40_000L), tuple(1L, 40_000L, 4000L), tuple(2L, 44_000L, 4000L), tuple(2L, 48_000L, 40_000L));
        assertThat(after.endFrame()).isEqualTo(88_000);
    }

    @Test
    void another_trick_takes_the_place_of_one_and_is_made_of_the_words_themselves() {
        Timeline twice = after(new PlayTrick(1, new Span(10_000, 30_000), Trick.Kind.BACKWARDS, 0, Set.of(4L)), after(slower(10_000, 20_000), PAGE));
        assertThat(clips(twice).get(1).source().treatment()).isEqualTo(Treatment.of(new Trick(Trick.Kind.BACKWARDS, 0, new Span(15_000, 25_000))));
        assertThat(clips(twice).get(1).frames()).isEqualTo(10_000);
    }

    @Test
    void taken_back_the_words_are_as_long_as_they_were_said_with_what_else_was_done_to_the_take() {
        Timeline tricked = after(slower(10_000, 20_000), PAGE);
        Timeline treated = after(new Treat(1, new ChooseSides(Sides.LEFT)), tricked);
        Timeline back = after(new PlayTrick(1, new Span(10_000, 30_000), null, 0, Set.of(4L)), treated);
        assertThat(clips(back)).extracting(Clip::startFrame, Clip::frames, Clip::sourceFrame)
                .containsExactly(tuple(0L, 10_000L, 5000L), tuple(10_000L, 10_000L, 15_000L), tuple(20_000L, 28_000L, 25_000L), tuple(48_000L, 48_000L, 0L));
        assertThat(clips(back).get(1).source().treatment()).isEqualTo(Treatment.of(new ChooseSides(Sides.LEFT)));
    }

    @Test
    void part_of_a_trick_is_taken_back_alone() {
        Timeline back = after(new PlayTrick(1, new Span(20_000, 30_000), null, 0, Set.of(4L)), after(slower(10_000, 20_000), PAGE));
        assertThat(clips(back)).extracting(Clip::startFrame, Clip::frames, Clip::sourceFrame).startsWith(tuple(0L, 10_000L, 5000L), tuple(10_000L, 10_000L, 0L), tuple(20_000L, 5000L, 20_000L));
    }

    @Test
    void what_cannot_be_is_refused_with_its_reason() {
        assertThatThrownBy(() -> after(new PlayTrick(1, new Span(0, 31 * 48_000), Trick.Kind.HALL, 2, Set.of()), PAGE)).hasMessage("TRICK_TOO_LONG");
        assertThatThrownBy(() -> after(new PlayTrick(1, new Span(0, 4800), Trick.Kind.PACE, 1000, Set.of()), PAGE)).hasMessage("AMOUNT_OUT_OF_RANGE");
        assertThatThrownBy(() -> after(new PlayTrick(1, new Span(0, 4800), null, 0, Set.of()), PAGE)).hasMessage("NOTHING_THERE");
    }
}

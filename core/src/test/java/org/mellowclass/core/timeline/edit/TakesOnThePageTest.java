package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.List;
import org.assertj.core.groups.Tuple;
import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Treatment;

/** A take in the place of another, a take erased, flags that come with a take and get other names. */
class TakesOnThePageTest {

    private static final Timeline PAGE = new Timeline(List.of(new Track(1, "Noor", 1, 0, false,
            List.of(Timelines.clip(2, 7, 0, 0, 1000), Timelines.clip(3, 8, 1000, 0, 1000)))), List.of(new Flag(4, 1, 1500, "eels")), 5);

    @Test
    void a_take_of_the_same_length_takes_the_place_of_another_and_nothing_else_moves() {
        Edited edited = new SwapTake(7, 9, new Span(100, 1100)).applyTo(PAGE, TAKES);
        assertThat(where(edited.timeline(), "Noor")).containsExactly(tuple(9L, 0L, 1000L), tuple(8L, 1000L, 2000L));
        assertThat(edited.maps()).isEqualTo(TimeMaps.NONE);
        assertThatThrownBy(() -> new SwapTake(70, 9, new Span(0, 10)).applyTo(PAGE, TAKES)).isInstanceOf(EditRefused.class);
    }

    @Test
    void a_longer_take_opens_the_gap_on_the_tied_tracks_and_talks_over_nothing() {
        SwapTake longer = new SwapTake(7, 9, new Span(100, 1400));
        Timeline after = longer.applyTo(SCENE, TAKES).timeline();
        assertThat(longer.longerBy(SCENE)).isEqualTo(300);
        assertThat(where(after, "Noor")).containsExactly(tuple(9L, 0L, 1300L), tuple(8L, 1300L, 2300L));
        assertThat(where(after, "Music")).as("what is heard across the place plays on whole").containsExactly(tuple(5L, 500L, 1500L), tuple(6L, 2100L, 3100L));
        assertThat(where(after, "Apart")).as("not tied").containsExactly(tuple(4L, 1500L, 2500L));
        assertThat(after.flags()).extracting(Flag::frame).containsExactly(1800L);
    }

    @Test
    void a_shorter_take_closes_the_gap_on_the_tied_tracks() {
        Timeline after = new SwapTake(7, 9, new Span(100, 900)).applyTo(SCENE, TAKES).timeline();
        assertThat(where(after, "Noor")).containsExactly(tuple(9L, 0L, 800L), tuple(8L, 800L, 1800L));
        assertThat(where(after, "Music")).containsExactly(tuple(5L, 500L, 800L), tuple(5L, 800L, 1300L), tuple(6L, 1600L, 2600L));
        assertThat(where(after, "Apart")).as("not tied").containsExactly(tuple(4L, 1500L, 2500L));
        assertThat(after.flags()).extracting(Flag::frame).containsExactly(1300L);
    }

    @Test
    void both_ends_of_a_take_that_was_swapped_in_are_crossfaded_with_the_neighbours_that_adjoin() {
        Timeline line = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(Timelines.clip(2, 5, 0, 0, 50_000),
                Timelines.clip(3, 7, 50_000, 0, 50_000), Timelines.clip(4, 6, 100_000, 0, 50_000)))), List.of(), 5);
        List<Clip> clips = new SwapTake(7, 9, new Span(5_000, 65_000)).applyTo(line, TAKES).timeline().tracks().get(0).clips();
        assertThat(where(line(clips), "Noor")).as("480 frames, 10 ms, over each of both; the words where they belong")
                .containsExactly(tuple(5L, 0L, 50_000L), tuple(9L, 49_520L, 110_480L), tuple(6L, 110_000L, 160_000L));
        assertThat(clips.get(1).sourceFrame()).isEqualTo(4_520);
        Fade crossfade = Fade.of(480, Fade.Shape.EQUAL_POWER);
        assertThat(List.of(clips.get(0).fadeOut(), clips.get(1).fadeIn(), clips.get(1).fadeOut(), clips.get(2).fadeIn())).containsOnly(crossfade);
    }

    private static final Timeline SCENE = new Timeline(List.of(PAGE.tracks().get(0),
            new Track(6, "Music", 1, 0, false, List.of(Timelines.clip(7, 5, 500, 0, 1000), Timelines.clip(8, 6, 1800, 0, 1000))),
            new Track(9, "Apart", 2, 0, false, List.of(Timelines.clip(10, 4, 1500, 0, 1000)))), PAGE.flags(), 11);

    private static Timeline line(List<Clip> clips) {
        return new Timeline(List.of(new Track(1, "Noor", 1, 0, false, clips)), List.of(), 1000);
    }

    private static List<Tuple> where(Timeline timeline, String track) {
        return timeline.trackNamed(track).orElseThrow().clips().stream().map(clip -> tuple(clip.source().takeId(), clip.startFrame(), clip.endFrame())).toList();
    }

    @Test
    void an_erased_take_leaves_its_place_empty() {
        Timeline after = new EraseTake(7).applyTo(PAGE, TAKES).timeline();
        assertThat(after.tracks().get(0).clips()).containsExactly(PAGE.tracks().get(0).clips().get(1));
        assertThat(after.flags()).as("of another take").containsExactly(new Flag(4, 1, 1500, "eels"));
        assertThat(new EraseTake(8).applyTo(PAGE, TAKES).timeline().flags()).as("its own go with it").isEmpty();
        assertThat(new EraseTake(7).footprint(PAGE, TAKES).stretches()).containsExactly(new Footprint.Stretch(1, new Span(0, 1000)));
    }

    @Test
    void a_flag_gets_another_name_and_keeps_its_moment() {
        assertThat(new NameFlag(4, " bells ").applyTo(PAGE, TAKES).timeline().flags()).containsExactly(new Flag(4, 1, 1500, "bells"));
        assertThatThrownBy(() -> new NameFlag(4, " ").applyTo(PAGE, TAKES)).isInstanceOf(EditRefused.class);
        assertThatThrownBy(() -> new NameFlag(40, "bells").applyTo(PAGE, TAKES)).isInstanceOf(EditRefused.class);
    }

    @Test
    void flags_come_with_a_take_where_they_were_set() {
        Timeline after = LaySpan.behind(PAGE, 9, new Span(500, 2500), "Noor", List.of(400L, 600L, 2400L)).applyTo(PAGE, TAKES).timeline();
        assertThat(after.flags()).extracting(Flag::frame, Flag::name).containsExactly(tuple(1500L, "eels"),
                tuple(2100L, "flag 1"), tuple(3900L, "flag 2"));
        assertThat(LaySpan.behind(after, 9, new Span(500, 2500), "Noor", List.of(600L)).applyTo(after, TAKES).timeline().flags()).as("numbered on")
                .last().extracting(Flag::name).isEqualTo("flag 3");
    }

    @Test
    void a_take_is_mended_in_every_clip_that_plays_it() {
        Timeline cut = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(Timelines.clip(2, 7, 0, 100, 400),
                Timelines.clip(3, 8, 400, 0, 50), Timelines.clip(4, 7, 450, 500, 500)))), List.of(), 5);
        Timeline after = new Treat(7, new RedrawTops()).applyTo(cut, TAKES).timeline();
        Treatment mended = Treatment.of(new RedrawTops());
        assertThat(after.tracks().get(0).clips()).extracting(clip -> clip.source().takeId(), clip -> clip.source().treatment(), Clip::span, Clip::sourceFrame)
                .containsExactly(tuple(7L, mended, new Span(0, 400), 100L), tuple(8L, Treatment.NONE, new Span(400, 450), 0L),
                        tuple(7L, mended, new Span(450, 950), 500L));
        assertThatThrownBy(() -> new Treat(7, new RedrawTops()).applyTo(after, TAKES)).hasMessage("CHANGES_NOTHING");
        assertThatThrownBy(() -> new Treat(70, new RedrawTops()).applyTo(cut, TAKES)).isInstanceOf(EditRefused.class);
    }

    @Test
    void by_a_corrected_clock_free_edges_go_with_their_words_and_edges_that_touch_stay() {
        Timeline page = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(Timelines.clip(2, 7, 1000, 0, 2_000_000),
                Timelines.clip(3, 7, 2_001_000, 2_000_000, 2_000_000), Timelines.clip(4, 8, 4_001_100, 0, 1000)))), List.of(), 5);
        Timeline after = new Treat(7, new CorrectClock(100)).applyTo(page, TAKES).timeline();
        assertThat(after.tracks().get(0).clips()).extracting(Clip::startFrame, Clip::sourceFrame, Clip::frames).as("the last has half of the gap to its neighbour")
                .containsExactly(tuple(1000L, 0L, 2_000_000L), tuple(2_001_000L, 2_000_000L, 2_000_050L), tuple(4_001_100L, 0L, 1000L));
    }

    @Test
    void a_take_is_laid_in_step_with_another_that_stays() {
        LayInStep.Laid first = new LayInStep.Laid(7, new Span(0, 1000), "Noor");
        LayInStep.Laid second = new LayInStep.Laid(9, new Span(50, 900), "Tess");
        Timeline after = new LayInStep(first, second, 300, 0).applyTo(PAGE, TAKES).timeline();
        assertThat(after.tracks()).extracting(Track::name).containsExactly("Noor", "Tess");
        assertThat(after.tracks().get(0)).isEqualTo(PAGE.tracks().get(0));
        assertThat(after.tracks().get(1).clips()).singleElement().satisfies(clip -> {
            assertThat(clip.startFrame()).isEqualTo(350);
            assertThat(clip.sourceFrame()).isEqualTo(50);
        });
        assertThatThrownBy(() -> new LayInStep(first, second, 300, 0).applyTo(after, TAKES)).hasMessage("CHANGES_NOTHING");
        Timeline moved = new LayInStep(first, second, 310, 0).applyTo(after, TAKES).timeline();
        assertThat(moved.tracks().get(1).clips()).singleElement().satisfies(clip -> assertThat(clip.startFrame()).isEqualTo(360));
    }

    @Test
    void where_the_second_begins_before_the_page_does_both_move_to_the_right() {
        Timeline page = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(Timelines.clip(2, 7, 100, 0, 1000)))), List.of(), 3);
        Timeline after = new LayInStep(new LayInStep.Laid(7, new Span(0, 1000), "Noor"), new LayInStep.Laid(9, new Span(0, 1500), "Tess"), -400, 0)
                .applyTo(page, TAKES).timeline();
        assertThat(after.tracks()).extracting(track -> track.clips().get(0).startFrame()).containsExactly(400L, 0L);
    }

    @Test
    void a_take_that_lies_in_pieces_is_not_laid_in_step() {
        Timeline page = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(Timelines.clip(2, 7, 0, 0, 100),
                Timelines.clip(3, 9, 200, 0, 100), Timelines.clip(4, 9, 400, 200, 100)))), List.of(), 5);
        assertThatThrownBy(() -> new LayInStep(new LayInStep.Laid(7, new Span(0, 100), "Noor"), new LayInStep.Laid(9, new Span(0, 300), "Tess"), 0, 0)
                .applyTo(page, TAKES)).isInstanceOfSatisfying(EditRefused.class, refused -> {
                    assertThat(refused.reason()).isEqualTo(EditRefused.Reason.TAKE_IN_PIECES);
                    assertThat(refused.clipIds()).containsExactlyInAnyOrder(3L, 4L);
                });
    }

    @Test
    void a_take_is_made_louder_wherever_it_plays() {
        Timeline after = new SetTakeGain(7, 9).applyTo(PAGE, TAKES).timeline();
        assertThat(after.tracks().get(0).clips()).extracting(Clip::gainDb).containsExactly(9.0, 0.0);
        assertThatThrownBy(() -> new SetTakeGain(7, 9).applyTo(after, TAKES)).hasMessage("CHANGES_NOTHING");
        assertThatThrownBy(() -> new SetTakeGain(7, 90).applyTo(PAGE, TAKES)).hasMessage("GAIN_OUT_OF_RANGE");
    }
}

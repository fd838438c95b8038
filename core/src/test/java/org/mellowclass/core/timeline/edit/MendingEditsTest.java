package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.List;
import java.util.Map;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.MendPlaces;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Treatment;

/** Edits that change how a take sounds, and joins between takes. */
class MendingEditsTest {

    private static final Fade CROSSFADE = Fade.of(1000, Fade.Shape.EQUAL_POWER);

    private static Timeline page(Clip... clips) {
        return new Timeline(List.of(new Track(1, "Noor", 3, -2, true, List.of(clips))), List.of(), 50);
    }

    /** Take 1 at 0 to 10,000 and take 2 at 9,000 to 20,000, crossfaded. */
    private static Timeline crossfaded() {
        return page(Timelines.clip(2, 1, 0, 0, 10_000).withFades(Fade.NONE, CROSSFADE), Timelines.clip(3, 2, 9_000, 0, 11_000).withFades(CROSSFADE, Fade.NONE));
    }

    private static List<Clip> blanked(Timeline timeline, long from, long to) {
        return new Blank(new Span(from, to), Set.of(1L)).applyTo(timeline, TAKES).timeline().tracks().get(0).clips();
    }

    // ---- two speakers on one take

    @Test
    void each_clip_plays_the_left_side_and_another_one_the_right_at_the_same_time() {
        Timeline timeline = page(Timelines.clip(2, 7, 100, 500, 1000), Timelines.clip(3, 8, 1100, 0, 50), Timelines.clip(4, 7, 2000, 3000, 700).withGain(-3));
        Timeline after = new PartSides(7, "Tess").applyTo(timeline, TAKES).timeline();
        assertThat(after.tracks()).extracting(Track::name, Track::group, Track::gainDb, Track::muted)
                .containsExactly(tuple("Noor", 3, -2.0, true), tuple("Tess", 3, -2.0, true));
        assertThat(after.tracks().get(1).id()).isEqualTo(50);
        assertThat(after.tracks().get(1).clips()).extracting(Clip::id, Clip::span, Clip::sourceFrame, Clip::gainDb)
                .containsExactly(tuple(51L, new Span(100, 1100), 500L, 0.0), tuple(52L, new Span(2000, 2700), 3000L, -3.0));
        assertThat(after.nextId()).isEqualTo(53);
        assertThat(after.tracks().get(0).clips()).extracting(clip -> clip.source().treatment()).containsExactly(
                Treatment.of(new ChooseSides(Sides.LEFT)), Treatment.NONE, Treatment.of(new ChooseSides(Sides.LEFT)));
        assertThat(after.tracks().get(1).clips()).extracting(clip -> clip.source().treatment()).containsOnly(Treatment.of(new ChooseSides(Sides.RIGHT)));
        assertThatThrownBy(() -> new PartSides(7, "Tess").applyTo(after, TAKES)).hasMessage("CHANGES_NOTHING");
        assertThat(new PartSides(7, "Noor").applyTo(timeline, TAKES).timeline().tracks()).extracting(Track::name).containsExactly("Noor", "Noor 2");
    }

    @Test
    void a_take_that_is_not_there_or_a_track_without_a_name_is_refused() {
        assertThatThrownBy(() -> new PartSides(9, "Tess").applyTo(crossfaded(), TAKES)).hasMessage("NO_SUCH_CLIP");
        assertThatThrownBy(() -> new PartSides(1, " ").applyTo(crossfaded(), TAKES)).hasMessage("NAME_MISSING");
        assertThatThrownBy(() -> new PartSides(1, null).applyTo(crossfaded(), TAKES)).hasMessage("NAME_MISSING");
    }

    // ---- blanking over a crossfade

    private static final Fade MEETING = Fade.EDGE.meeting(Fade.Seam.EQUAL_POWER);

    @Test
    void over_a_crossfade_the_rooms_are_crossfaded_and_nowhere_heard_twice_at_full_level() {
        List<Clip> clips = blanked(crossfaded(), 5_000, 15_000);
        assertThat(clips).extracting(Clip::span).containsExactly(new Span(0, 5_000), new Span(5_000, 10_000), new Span(9_000, 15_000), new Span(15_000, 20_000));
        Clip one = clips.get(1);
        Clip other = clips.get(2);
        assertThat(one.source()).isEqualTo(new RoomSource(1, Treatment.NONE, 100, 20_000));
        assertThat(other.source()).isEqualTo(new RoomSource(2, Treatment.NONE, 50_000, 8_000));
        for (long frame = 9_000; frame < 10_000; frame += 50) {
            double power = Math.pow(one.fadeAt(frame - one.startFrame()), 2) + Math.pow(other.fadeAt(frame - other.startFrame()), 2);
            assertThat(power).as("equal power").isBetween(0.99, 1.01);
        }
        assertThat(List.of(clips.get(0).fadeOut(), one.fadeIn(), other.fadeOut(), clips.get(3).fadeIn())).as("room and sound meet").containsOnly(MEETING);
    }

    @Test
    void a_span_inside_the_crossfade_or_hardly_beyond_it_gets_one_room_at_a_time() {
        assertThat(blanked(crossfaded(), 9_200, 9_800)).filteredOn(clip -> clip.source() instanceof RoomSource)
                .extracting(Clip::span).containsExactly(new Span(9_200, 9_800));
        assertThat(blanked(crossfaded(), 9_900, 12_000)).filteredOn(clip -> clip.source() instanceof RoomSource)
                .extracting(Clip::span, Clip::fadeIn).containsExactly(tuple(new Span(9_900, 10_000), MEETING), tuple(new Span(10_000, 12_000), Fade.EDGE));
    }

    @Test
    void the_room_of_a_treated_take_is_treated_as_it_is_and_too_little_room_is_silence() {
        Treatment mono = Treatment.of(new ChooseSides(Sides.MEAN));
        Timeline treated = page(new Clip(2, new TakeSource(1, mono), 0, 0, 10_000, -4, Fade.NONE, Fade.NONE));
        Clip room = blanked(treated, 2_000, 4_000).get(1);
        assertThat(room.source()).isEqualTo(new RoomSource(1, mono, 100, 20_000));
        assertThat(room.gainDb()).isEqualTo(-4);
        Blank blank = new Blank(new Span(2_000, 4_000), Set.of(1L));
        assertThat(blank.applyTo(treated, Timelines.facts(Map.of(1L, new Span(0, 4_799)))).timeline().clipsOf(1)).hasSize(2);
        assertThat(blank.applyTo(treated, Timelines.facts(Map.of(1L, new Span(0, 4_800)))).timeline().clipsOf(1)).hasSize(3);
    }

    // ---- crossfades

    @Test
    void an_overlap_that_is_too_short_to_fade_keeps_both_edges() {
        Timeline two = page(Timelines.clip(2, 1, 0, 0, 10_000), Timelines.clip(3, 2, 20_000, 0, 5_000));
        for (long overlap : new long[] {1, 239}) {
            List<Clip> clips = new Move(3, 1, 10_000 - overlap).applyTo(two, TAKES).timeline().tracks().get(0).clips();
            assertThat(clips.get(0).fadeOut()).isEqualTo(Fade.EDGE);
            assertThat(clips.get(1).fadeIn()).isEqualTo(Fade.EDGE);
        }
        List<Clip> clips = new Move(3, 1, 10_000 - 240).applyTo(two, TAKES).timeline().tracks().get(0).clips();
        assertThat(clips.get(0).fadeOut()).isEqualTo(Fade.of(240, Fade.Shape.EQUAL_POWER));
        assertThat(clips.get(1).fadeIn()).isEqualTo(Fade.of(240, Fade.Shape.EQUAL_POWER));
        assertThat(clips.get(1).fadeOut()).isEqualTo(Fade.NONE);
    }

    @Test
    void a_clip_may_lie_over_a_start_too_but_not_over_a_crossfade_nor_inside_or_over_a_whole_clip() {
        Timeline two = page(Timelines.clip(2, 1, 6_000, 0, 10_000), Timelines.clip(3, 2, 20_000, 0, 5_000));
        List<Clip> clips = new Move(3, 1, 1_500).applyTo(two, TAKES).timeline().tracks().get(0).clips();
        assertThat(clips).extracting(Clip::id).containsExactly(3L, 2L);
        assertThat(clips.get(0).fadeOut()).isEqualTo(Fade.of(500, Fade.Shape.EQUAL_POWER));
        assertThat(clips.get(1).fadeIn()).isEqualTo(Fade.of(500, Fade.Shape.EQUAL_POWER));
        refuses(two, new Move(3, 1, 8_000), 2);
        refuses(two, new Move(2, 1, 19_000), 3);
        Timeline joined = new Timeline(List.of(crossfaded().tracks().get(0), new Track(6, "Tess", 1, 0, false, List.of(Timelines.clip(9, 1, 0, 0, 5_000)))), List.of(), 60);
        refuses(joined, new Move(9, 1, 9_500), 2);
    }

    private static void refuses(Timeline timeline, Edit edit, long clip) {
        assertThatThrownBy(() -> edit.applyTo(timeline, TAKES)).isInstanceOfSatisfying(EditRefused.class, refused -> {
            assertThat(refused.reason()).isEqualTo(EditRefused.Reason.SOUND_IS_THERE);
            assertThat(refused.clipIds()).contains(clip);
        });
    }

    // ---- another clock

    private static List<Clip> byClock(double ppm, Clip... clips) {
        return new Treat(7, new CorrectClock(ppm)).applyTo(page(clips), TAKES).timeline().tracks().get(0).clips();
    }

    @Test
    void with_another_clip_close_behind_it_neither_throws_nor_overlaps() {
        Clip take = Timelines.clip(2, 7, 0, 0, 1_000_000);
        assertThat(byClock(200, take, Timelines.clip(3, 8, 1_000_001, 0, 500)).get(0).span()).isEqualTo(new Span(0, 1_000_000));
        assertThat(byClock(200, take, Timelines.clip(3, 8, 1_000_100, 0, 500)).get(0).span()).isEqualTo(new Span(0, 1_000_050));
        assertThat(byClock(200, take, Timelines.clip(3, 8, 1_001_000, 0, 500)).get(0).span()).isEqualTo(new Span(0, 1_000_200));
    }

    @Test
    void by_a_slower_clock_no_gap_opens_between_clips_that_touch() {
        List<Clip> clips = byClock(-200, Timelines.clip(2, 7, 0, 0, 1_000_000), Timelines.clip(3, 8, 1_000_000, 0, 500));
        assertThat(clips.get(0).endFrame()).isEqualTo(clips.get(1).startFrame());
        assertThat(byClock(-200, Timelines.clip(2, 7, 0, 0, 1_000_000)).get(0).frames()).as("a free end goes with its words").isEqualTo(999_800);
    }

    @Test
    void a_piece_stays_in_step_and_its_free_start_goes_with_its_words() {
        Clip piece = byClock(100, Timelines.clip(2, 7, 5_000, 1_000_000, 20_000)).get(0);
        assertThat(piece.startFrame()).isEqualTo(5_100);
        assertThat(piece.sourceFrame()).as("frame 0 of the take stays where it stood").isEqualTo(1_000_100);
        assertThat(piece.frames()).isEqualTo(20_002);
        Clip early = byClock(-300, Timelines.clip(2, 7, 100, 1_000_000, 20_000)).get(0);
        assertThat(early.startFrame()).as("never before the page").isZero();
        assertThat(early.sourceFrame()).isEqualTo(999_900);
        Clip tiny = byClock(-300, Timelines.clip(3, 8, 0, 0, 5_000), Timelines.clip(2, 7, 5_000, 1_000_000, 200)).get(1);
        assertThat(tiny.span()).as("too short to lose its words: it stays").isEqualTo(new Span(5_000, 5_200));
    }

    @Test
    void a_step_is_taken_once_and_another_of_its_kind_takes_its_place() {
        Timeline once = new Treat(1, new RedrawTops()).applyTo(crossfaded(), TAKES).timeline();
        assertThat(once.clipsOf(1).get(0).source().treatment()).isEqualTo(Treatment.of(new RedrawTops()));
        assertThat(once.clipsOf(2).get(0).source().treatment()).isEqualTo(Treatment.NONE);
        Timeline left = new Treat(1, new ChooseSides(Sides.LEFT)).applyTo(once, TAKES).timeline();
        Timeline right = new Treat(1, new ChooseSides(Sides.RIGHT)).applyTo(left, TAKES).timeline();
        assertThat(right.clipsOf(1).get(0).source().treatment()).isEqualTo(Treatment.of(new ChooseSides(Sides.RIGHT), new RedrawTops()));
        assertThatThrownBy(() -> new Treat(1, new RedrawTops()).applyTo(right, TAKES)).hasMessage("CHANGES_NOTHING");
    }

    /** A place that is mended is of the take: copies of it and what is played by another treatment too. */
    @Test
    void a_click_is_mended_in_every_clip_of_its_take_and_stays_mended_beside_other_steps() {
        Timeline two = page(Timelines.clip(2, 7, 0, 1_000, 5_000), Timelines.clip(3, 7, 10_000, 900, 5_000), Timelines.clip(4, 8, 20_000, 0, 5_000));
        Timeline mended = Mend.heard(two, new Span(100, 300), Set.of(1L)).applyTo(two, TAKES).timeline();
        MendPlaces one = new MendPlaces(List.of(new Span(1_100, 1_300)));
        assertThat(mended.clipsOf(7)).extracting(clip -> clip.source().treatment()).containsExactly(Treatment.of(one), Treatment.of(one));
        assertThat(mended.clipsOf(8).get(0).source().treatment()).isEqualTo(Treatment.NONE);
        Timeline slower = new Treat(7, new CorrectClock(100)).applyTo(mended, TAKES).timeline();
        Timeline both = Mend.heard(slower, new Span(10_000 + 600, 10_000 + 700), Set.of(1L)).applyTo(slower, TAKES).timeline();
        assertThat(both.clipsOf(7).get(0).source().treatment())
                .isEqualTo(Treatment.of(new MendPlaces(List.of(new Span(1_100, 1_300), new Span(1_500, 1_600))), new CorrectClock(100)));
        assertThatThrownBy(() -> new Mend(Map.of(7L, List.of(new Span(1_100, 1_200)))).applyTo(mended, TAKES)).hasMessage("CHANGES_NOTHING");
        assertThatThrownBy(() -> new Mend(Map.of(7L, List.of(new Span(1_300, 2_100)))).applyTo(mended, TAKES)).hasMessage("TOO_MUCH_TO_MEND");
        assertThatThrownBy(() -> Mend.heard(two, new Span(6_000, 6_100), Set.of(1L))).hasMessage("NOTHING_THERE");
    }

    // ---- trimming

    @Test
    void a_clip_is_trimmed_to_20_ms_at_the_least_and_to_its_take_at_the_most() {
        Timeline one = page(Timelines.clip(2, 7, 10_000, 1_000, 50_000));
        assertThat(trimmed(one, Trim.Edge.END, 10_960).span()).isEqualTo(new Span(10_000, 10_960));
        assertThat(trimmed(one, Trim.Edge.START, 59_040).sourceFrame()).isEqualTo(50_040);
        assertThat(trimmed(one, Trim.Edge.START, 9_000).sourceFrame()).isZero();
        assertThat(trimmed(one, Trim.Edge.END, 209_000).frames()).isEqualTo(199_000);
        assertThat(trimmed(one, Trim.Edge.END, 20_000).fadeOut()).isEqualTo(Fade.EDGE);
        assertThat(trimmed(one, Trim.Edge.END, 20_000).fadeIn()).isEqualTo(Fade.NONE);
        refusesTrim(one, Trim.Edge.END, 10_959, EditRefused.Reason.TOO_SHORT);
        refusesTrim(one, Trim.Edge.START, 59_041, EditRefused.Reason.TOO_SHORT);
        refusesTrim(one, Trim.Edge.START, 8_999, EditRefused.Reason.BEYOND_THE_TAKE);
        refusesTrim(one, Trim.Edge.END, 209_001, EditRefused.Reason.BEYOND_THE_TAKE);
        refusesTrim(one, Trim.Edge.END, 60_000, EditRefused.Reason.CHANGES_NOTHING);
        refusesTrim(one, Trim.Edge.START, 10_000, EditRefused.Reason.CHANGES_NOTHING);
        Timeline room = page(new Clip(2, new RoomSource(7, Treatment.NONE, 0, 5_000), 0, 0, 5_000, 0, Fade.NONE, Fade.NONE));
        assertThat(trimmed(room, Trim.Edge.END, 900_000).frames()).as("a room has no end").isEqualTo(900_000);
        Timeline longer = page(new Clip(2, new TakeSource(7, Treatment.of(new CorrectClock(100))), 0, 0, 5_000, 0, Fade.NONE, Fade.NONE));
        assertThat(trimmed(longer, Trim.Edge.END, 200_020).frames()).as("as far as the treated take reaches").isEqualTo(200_020);
    }

    @Test
    void a_clip_grows_up_to_its_neighbour_and_no_further() {
        Timeline two = page(Timelines.clip(2, 1, 5_000, 5_000, 10_000), Timelines.clip(3, 2, 20_000, 8_000, 5_000));
        assertThat(trimmed(two, Trim.Edge.END, 20_000).endFrame()).isEqualTo(20_000);
        refusesTrim(two, Trim.Edge.END, 20_001, EditRefused.Reason.SOUND_IS_THERE);
        Edit start = new Trim(3, Trim.Edge.START, 14_999);
        assertThatThrownBy(() -> start.applyTo(two, TAKES)).hasMessage("SOUND_IS_THERE");
        assertThat(new Trim(3, Trim.Edge.START, 15_000).applyTo(two, TAKES).timeline().clip(3).orElseThrow().startFrame()).isEqualTo(15_000);
    }

    private static Clip trimmed(Timeline timeline, Trim.Edge edge, long frame) {
        return new Trim(2, edge, frame).applyTo(timeline, TAKES).timeline().clip(2).orElseThrow();
    }

    private static void refusesTrim(Timeline timeline, Trim.Edge edge, long frame, EditRefused.Reason reason) {
        assertThatThrownBy(() -> new Trim(2, edge, frame).applyTo(timeline, TAKES)).hasMessage(reason.name());
    }
}

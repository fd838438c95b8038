package org.mellowclass.core.timeline.history;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Seeds;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.AddFlag;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.Edited;
import org.mellowclass.core.timeline.edit.LaySpan;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.NameFlag;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.RemoveFlag;
import org.mellowclass.core.timeline.edit.SetClipGain;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.timeline.edit.Trim;
import org.mellowclass.core.treatment.RedrawTops;

class RebaseTest {

    static IntStream seeds() {
        return Seeds.first(4000);
    }

    /** What an edit comes to on a timeline that another edit has made meanwhile. */
    private static Timeline over(Edit edit, Timeline base, Edited others) {
        return Rebase.of(edit, base, others.timeline(), others.maps(), TAKES).map(rebase -> rebase.edited().timeline()).orElse(others.timeline());
    }

    /** As {@link #over}, of edits that have nothing in common. */
    private static Timeline mustApplyOver(Edit edit, Timeline base, Edit theirs, Edited others) {
        try {
            return over(edit, base, others);
        } catch (EditRefused refused) {
            throw new AssertionError(edit + " after " + theirs + " " + refused.clipIds(), refused);
        }
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void edits_that_touch_nothing_in_common_both_apply_and_come_to_the_same_in_either_order(int seed) {
        Random random = new Random(seed);
        Timeline base = Timelines.generate(random);
        Edit mine = Timelines.edit(base, random);
        Edit theirs = Timelines.edit(base, random);
        Edited afterMine;
        Edited afterTheirs;
        try {
            afterMine = mine.applyTo(base, TAKES);
            afterTheirs = theirs.applyTo(base, TAKES);
        } catch (EditRefused doesNotApply) {
            return;
        }
        if (mine.footprint(base, TAKES).disjoint(theirs.footprint(base, TAKES))) {
            assertThat(withoutIds(mustApplyOver(mine, base, theirs, afterTheirs))).as("%s and %s", mine, theirs)
                    .isEqualTo(withoutIds(mustApplyOver(theirs, base, mine, afterMine)));
            return;
        }
        try {
            over(mine, base, afterTheirs);
        } catch (EditRefused refused) {
            if (refused.reason() == EditRefused.Reason.CHANGED_MEANWHILE) {
                assertThat(refused.clipIds()).as("%s after %s", mine, theirs)
                        .allMatch(id -> differs(id, base, afterTheirs.timeline(), afterTheirs.maps()));
            }
        }
    }

    /** Whether a clip is another one, stands elsewhere than where the time of its track has gone, or time was opened under it. */
    private static boolean differs(long id, Timeline base, Timeline head, TimeMaps maps) {
        Optional<Clip> was = base.clip(id);
        Optional<Clip> is = head.clip(id);
        if (was.isEmpty() || is.isEmpty()) {
            return was.isPresent() || is.isPresent();
        }
        long trackId = base.trackOf(id).orElseThrow().id();
        OptionalLong start = maps.of(trackId).map(was.get().startFrame());
        return trackId != head.trackOf(id).orElseThrow().id() || start.isEmpty() || maps.of(trackId).kept(was.get().span()).size() > 1
                || !is.get().equals(was.get().movedBy(start.getAsLong() - was.get().startFrame()));
    }

    /** Tracks and flags but for what depends on the order of edits: ids, and which of two new tracks is the upper one. */
    private static Object withoutIds(Timeline timeline) {
        return List.of(timeline.tracks().stream().map(track -> List.of(track.name(), track.gainDb(), track.muted(), track.group(),
                        track.clips().stream().map(clip -> clip.withId(0).toString()).sorted().toList())).collect(Collectors.toSet()),
                timeline.flags().stream().map(flag -> timeline.track(flag.trackId()).map(Track::name).orElse("") + flag.frame() + flag.name())
                        .sorted().toList());
    }

    private static final Timeline NOOR = new LayTake(7, 190_000, 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline();
    private static final long TRACK = NOOR.tracks().get(0).id();
    private static final Set<Long> HERE = Set.of(TRACK);

    private static Optional<Edit> rebased(Edit mine, Timeline base, Edit theirs) {
        Edited edited = theirs.applyTo(base, TAKES);
        return Rebase.of(mine, base, edited.timeline(), edited.maps(), TAKES).map(Rebase::edit);
    }

    @Test
    void whatever_is_meant_for_later_words_goes_along_with_them() {
        Remove theirs = new Remove(new Span(10_000, 106_000), HERE);
        assertThat(rebased(new Soften(new Span(182_000, 186_000), HERE), NOOR, theirs)).contains(new Soften(new Span(86_000, 90_000), HERE));
        assertThat(rebased(new AddFlag(TRACK, 182_000, "eels"), NOOR, theirs)).contains(new AddFlag(TRACK, 86_000, "eels"));
        assertThat(rebased(new LaySpan(8, new Span(0, 100), "Shelf", 182_000, 0), NOOR, theirs))
                .contains(new LaySpan(8, new Span(0, 100), "Shelf", 86_000, 0));
    }

    @Test
    void two_children_in_one_uncut_recording_both_succeed() {
        Remove early = new Remove(new Span(60_000, 64_000), HERE);
        Remove late = new Remove(new Span(140_000, 144_800), HERE);
        assertThat(rebased(late, NOOR, early)).contains(new Remove(new Span(136_000, 140_800), HERE));
        assertThat(rebased(early, NOOR, late)).contains(early);
        assertThat(rebased(new Trim(NOOR.tracks().get(0).clips().get(0).id(), Trim.Edge.END, 180_000), NOOR, early).orElseThrow())
                .isInstanceOfSatisfying(Trim.class, trim -> assertThat(trim.frame()).isEqualTo(176_000));
    }

    @Test
    void what_is_gone_already_needs_no_edit() {
        Remove theirs = new Remove(new Span(10_000, 20_000), HERE);
        assertThat(rebased(new Remove(new Span(12_000, 18_000), HERE), NOOR, theirs)).isEmpty();
        assertThat(rebased(new Soften(new Span(10_000, 20_000), HERE), NOOR, theirs)).isEmpty();
        assertThat(rebased(new AddFlag(TRACK, 15_000, "eels"), NOOR, theirs)).isEmpty();
        assertThat(rebased(new Remove(new Span(15_000, 30_000), HERE), NOOR, theirs)).as("the rest of it")
                .contains(new Remove(new Span(10_000, 20_000), HERE));
    }

    @Test
    void an_edit_of_sound_that_somebody_changed_is_refused_with_that_clip() {
        long clip = NOOR.tracks().get(0).clips().get(0).id();
        assertThatThrownBy(() -> rebased(new Remove(new Span(100, 200), HERE), NOOR, new SetClipGain(clip, -3)))
                .isInstanceOfSatisfying(EditRefused.class, refused -> {
                    assertThat(refused.reason()).isEqualTo(EditRefused.Reason.CHANGED_MEANWHILE);
                    assertThat(refused.clipIds()).containsExactly(clip);
                });
    }

    @Test
    void a_clip_is_moved_to_the_place_that_was_meant_whatever_its_neighbours_do() {
        Timeline base = new Timeline(List.of(new Track(1, "Noor", 1, 0, false,
                List.of(Timelines.clip(2, 7, 18_000, 0, 6_000), Timelines.clip(3, 8, 57_000, 0, 10_000)))), List.of(), 4);
        assertThat(rebased(new Move(2, 1, 36_000), base, new Remove(new Span(47_000, 56_000), Set.of(1L)))).contains(new Move(2, 1, 36_000));
    }

    @Test
    void a_removal_follows_each_track_where_their_times_have_come_apart() {
        Timeline base = new LayTake(9, 190_000, 0, "Ravi").applyTo(NOOR, TAKES).timeline();
        long ravi = base.tracks().get(1).id();
        assertThat(rebased(new Remove(new Span(97_000, 98_000), Set.of(TRACK, ravi)), base, new Remove(new Span(0, 10_000), HERE)))
                .contains(new Together(List.of(new Remove(new Span(97_000, 98_000), Set.of(ravi)), new Remove(new Span(87_000, 88_000), HERE))));
    }

    @Test
    void the_second_of_two_new_names_for_one_flag_is_asked_about_and_the_same_name_is_needless() {
        Timeline base = new AddFlag(TRACK, 1_000, "flag 1").applyTo(NOOR, TAKES).timeline();
        long flag = base.flags().get(0).id();
        assertThatThrownBy(() -> rebased(new NameFlag(flag, "bells"), base, new NameFlag(flag, "eels"))).hasMessage("FLAG_NAMED_MEANWHILE");
        assertThat(rebased(new NameFlag(flag, "eels"), base, new NameFlag(flag, "eels"))).isEmpty();
        assertThat(rebased(new NameFlag(flag, "bells"), base, new RemoveFlag(flag))).isEmpty();
    }

    @Test
    void mending_a_whole_take_and_cutting_it_are_nothing_to_each_other() {
        Edited cut = new Remove(new Span(100_000, 120_000), HERE).applyTo(NOOR, TAKES);
        Timeline one = over(new Treat(7, new RedrawTops()), NOOR, cut);
        assertThat(one.clipsOf(7)).hasSize(2).allMatch(clip -> clip.source().treatment().step(RedrawTops.class).isPresent());
        Edited mended = new Treat(7, new RedrawTops()).applyTo(NOOR, TAKES);
        assertThat(withoutIds(over(new Remove(new Span(100_000, 120_000), HERE), NOOR, mended))).isEqualTo(withoutIds(one));
    }

    @Test
    void what_somebody_else_takes_back_comes_back_into_a_selection_and_is_not_removed_with_it() {
        Edited removed = new Remove(new Span(100_000, 148_000), HERE).applyTo(NOOR, TAKES);
        Optional<Rebase> rebase = Rebase.of(new Remove(new Span(90_000, 110_000), HERE), removed.timeline(), NOOR, removed.maps().inverse(), TAKES);
        assertThat(rebase.orElseThrow().edited().timeline().endFrame()).isEqualTo(190_000 - 20_000);
        assertThat(rebase.get().edited().timeline().clipsOf(7)).extracting(Clip::sourceFrame, Clip::frames)
                .containsExactly(tuple(0L, 90_000L), tuple(100_000L, 48_000L),
                        tuple(158_000L, 32_000L));
    }
}

package org.mellowclass.core.timeline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;

class RebaseTest {

    static IntStream seeds() {
        return IntStream.range(0, 1500);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void two_edits_that_touch_nothing_in_common_both_apply_in_either_order(int seed) {
        Random random = new Random(seed);
        Timeline base = Timelines.generate(random);
        Edit mine = Timelines.edit(base, random);
        Edit theirs = Timelines.edit(base, random);
        Timeline afterMine;
        Timeline afterTheirs;
        try {
            afterMine = mine.applyTo(base).timeline();
            afterTheirs = theirs.applyTo(base).timeline();
        } catch (EditRefused doesNotApply) {
            return;
        }
        if (mine.footprint(base).disjoint(theirs.footprint(base))) {
            Timeline one = Rebase.of(mine, base, afterTheirs).applyTo(afterTheirs).timeline();
            Timeline other = Rebase.of(theirs, base, afterMine).applyTo(afterMine).timeline();
            if (!placesSomething(mine) && !placesSomething(theirs)) {
                assertThat(withoutIds(one)).as("%s and %s", mine, theirs).isEqualTo(withoutIds(other));
            }
        } else {
            try {
                Rebase.of(mine, base, afterTheirs).applyTo(afterTheirs);
            } catch (EditRefused refused) {
                assertThat(refused.reason()).isIn(EditRefused.Reason.CHANGED_MEANWHILE, EditRefused.Reason.CHANGES_NOTHING,
                        EditRefused.Reason.NOTHING_THERE, EditRefused.Reason.SOUND_IS_THERE);
            }
        }
    }

    @Test
    void an_edit_moves_along_with_what_it_touches() {
        Timeline base = new LayTake(8, 48_000, 0, "Noor").applyTo(noor()).timeline();
        long track = base.tracks().get(0).id();
        Timeline head = new Remove(new Span(1_000, 11_000), Set.of(track)).applyTo(base).timeline();
        Edit late = new Soften(new Span(100_000, 110_000), Set.of(track));
        assertThat(Rebase.of(late, base, head)).isEqualTo(new Soften(new Span(90_000, 100_000), Set.of(track)));
    }

    @Test
    void an_edit_of_a_clip_that_somebody_changed_is_refused_with_that_clip() {
        Timeline base = noor();
        Clip clip = base.tracks().get(0).clips().get(0);
        Timeline head = new SetClipGain(clip.id(), -3).applyTo(base).timeline();
        Edit mine = new Remove(new Span(100, 200), base.trackIds());
        assertThatThrownBy(() -> Rebase.of(mine, base, head)).isInstanceOfSatisfying(EditRefused.class, refused -> {
            assertThat(refused.reason()).isEqualTo(EditRefused.Reason.CHANGED_MEANWHILE);
            assertThat(refused.clipIds()).containsExactly(clip.id());
        });
    }

    @Test
    void a_removal_follows_each_track_where_their_times_have_come_apart() {
        Timeline base = new LayTake(9, 120_000, 0, "Ravi").applyTo(
                new LayTake(8, 48_000, 0, "Noor").applyTo(noor()).timeline()).timeline();
        long noor = base.tracks().get(0).id();
        long ravi = base.tracks().get(1).id();
        Timeline later = new Split(48_000, Set.of(ravi)).applyTo(base).timeline();
        Timeline head = new Remove(new Span(0, 10_000), Set.of(noor)).applyTo(later).timeline();
        Edit both = new Remove(new Span(97_000, 98_000), Set.of(noor, ravi));
        assertThat(Rebase.of(both, later, head)).isEqualTo(new Together(List.of(
                new Remove(new Span(87_000, 88_000), Set.of(noor)), new Remove(new Span(97_000, 98_000), Set.of(ravi)))));
    }

    @Test
    void a_gap_that_somebody_has_filled_is_not_closed_over_their_sound() {
        Timeline base = new Blank(new Span(20_000, 60_000), noor().trackIds(), Map.of()).applyTo(noor()).timeline();
        Track track = base.tracks().get(0);
        Timeline head = new Trim(track.clips().get(0).id(), Trim.Edge.END, 50_000, 96_000).applyTo(base).timeline();
        Edit close = new Remove(new Span(30_000, 60_000), base.trackIds());
        assertThatThrownBy(() -> Rebase.of(close, base, head)).isInstanceOfSatisfying(EditRefused.class,
                refused -> assertThat(refused.clipIds()).containsExactly(track.clips().get(0).id()));
    }

    private static Timeline noor() {
        return new LayTake(7, 96_000, 0, "Noor").applyTo(Timeline.empty()).timeline();
    }

    /** A clip or flag put into free space keeps its distance to one neighbour only, and which one depends on the order. */
    private static boolean placesSomething(Edit edit) {
        return edit instanceof Move || edit instanceof AddFlag;
    }

    /** Tracks and flags but for the ids of what was made by the edits, which depend on their order. */
    private static List<Object> withoutIds(Timeline timeline) {
        return List.of(timeline.tracks().stream()
                        .map(track -> track.withClips(track.clips().stream().map(clip -> clip.withId(0)).toList())).toList(),
                timeline.flags().stream().map(flag -> new Flag(0, flag.trackId(), flag.frame(), flag.name()))
                        .collect(Collectors.toSet()));
    }
}

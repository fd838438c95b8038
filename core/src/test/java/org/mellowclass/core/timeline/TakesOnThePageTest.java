package org.mellowclass.core.timeline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;

/** A take in the place of another, a take erased, flags that come with a take and get other names. */
class TakesOnThePageTest {

    private static final Timeline PAGE = new Timeline(List.of(new Track(1, "Noor", 1, 0, false,
            List.of(Timelines.clip(2, 7, 0, 0, 1000), Timelines.clip(3, 8, 1000, 0, 1000)))), List.of(new Flag(4, 1, 1500, "eels")), 5);

    @Test
    void a_take_takes_the_place_of_another_and_nothing_else_moves() {
        Timeline after = new SwapTake(7, 9, new Span(100, 900)).applyTo(PAGE).timeline();
        assertThat(after.tracks().get(0).clips()).extracting(clip -> clip.source().takeId(), Clip::startFrame)
                .containsExactly(tuple(9L, 0L), tuple(8L, 1000L));
        assertThat(new SwapTake(7, 9, new Span(0, 1200)).applyTo(PAGE).timeline().tracks()).as("too long for its place: beside it")
                .extracting(Track::name).containsExactly("Noor", "Noor 2");
        assertThatThrownBy(() -> new SwapTake(70, 9, new Span(0, 10)).applyTo(PAGE)).isInstanceOf(EditRefused.class);
    }

    @Test
    void an_erased_take_leaves_its_place_empty() {
        Timeline after = new EraseTake(7).applyTo(PAGE).timeline();
        assertThat(after.tracks().get(0).clips()).containsExactly(PAGE.tracks().get(0).clips().get(1));
        assertThat(new EraseTake(7).footprint(PAGE).clipIds()).containsExactly(2L);
    }

    @Test
    void a_flag_gets_another_name_and_keeps_its_moment() {
        assertThat(new NameFlag(4, " bells ").applyTo(PAGE).timeline().flags()).containsExactly(new Flag(4, 1, 1500, "bells"));
        assertThatThrownBy(() -> new NameFlag(4, " ").applyTo(PAGE)).isInstanceOf(EditRefused.class);
        assertThatThrownBy(() -> new NameFlag(40, "bells").applyTo(PAGE)).isInstanceOf(EditRefused.class);
    }

    @Test
    void flags_come_with_a_take_where_they_were_set() {
        Timeline after = LaySpan.behind(PAGE, 9, new Span(500, 2500), "Noor", List.of(400L, 600L, 2400L)).applyTo(PAGE).timeline();
        assertThat(after.flags()).extracting(Flag::frame, Flag::name).containsExactly(tuple(1500L, "eels"),
                tuple(2100L, "flag 1"), tuple(3900L, "flag 2"));
    }
}

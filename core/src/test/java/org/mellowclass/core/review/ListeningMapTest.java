package org.mellowclass.core.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.List;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.review.ListeningMap.Played;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.LaySpan;
import org.mellowclass.core.timeline.edit.Remove;

class ListeningMapTest {

    private static final Timeline FIRST = new Timeline(List.of(new Track(1, "Noor", 1, 0, false,
            List.of(Timelines.clip(2, 7, 0, 0, 480_000), Timelines.clip(3, 8, 600_000, 0, 240_000)))), List.of(), 4);
    private static final Timeline CUT = new Remove(new Span(100_000, 148_000), Set.of(1L)).applyTo(FIRST, TAKES).timeline();
    private static final Timeline LONGER = new LaySpan(9, new Span(0, 96_000), "Noor", 200_000, 0).applyTo(CUT, TAKES).timeline();

    @Test
    void what_was_not_played_is_left_and_silence_between_clips_is_no_sound() {
        ListeningMap map = ListeningMap.of(List.of(new Played(FIRST, List.of(new Span(0, 300_000), new Span(250_000, 480_000)))));
        assertThat(map.heard()).containsExactly(new Span(0, 480_000));
        assertThat(map.left()).containsExactly(new Span(600_000, 840_000));
        assertThat(map.whole()).isFalse();
    }

    @Test
    void seams_of_playing_are_nothing_that_was_missed() {
        assertThat(ListeningMap.of(List.of(new Played(FIRST, List.of(new Span(0, 200_000), new Span(220_000, 840_000))))).whole()).isTrue();
    }

    @Test
    void what_sounds_as_it_did_counts_as_heard_over_any_number_of_hand_ins() {
        List<Span> all = List.of(new Span(0, 840_000));
        assertThat(ListeningMap.of(List.of(new Played(FIRST, all), new Played(CUT, List.of()))).whole()).isTrue();
        ListeningMap longer = ListeningMap.of(List.of(new Played(FIRST, all), new Played(CUT, List.of()), new Played(LONGER, List.of())));
        assertThat(longer.left()).containsExactly(new Span(200_000, 296_000));
    }

    @Test
    void nobody_hears_more_than_twice_as_much_as_the_time_it_took() {
        assertThat(ListeningMap.possible(Frames.ofSeconds(20), 10_000)).isTrue();
        assertThat(ListeningMap.possible(Frames.ofSeconds(25), 10_000)).isFalse();
    }
}

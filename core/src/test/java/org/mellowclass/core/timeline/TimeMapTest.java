package org.mellowclass.core.timeline;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Random;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Seeds;

class TimeMapTest {

    private static final TimeMap REMOVED = TimeMap.removing(new Span(10, 30));

    @Test
    void what_is_before_stays_what_is_inside_is_gone_what_is_behind_closes_up() {
        assertThat(REMOVED.map(9)).hasValue(9);
        assertThat(REMOVED.map(10)).isEmpty();
        assertThat(REMOVED.map(29)).isEmpty();
        assertThat(REMOVED.map(30)).hasValue(10);
        assertThat(REMOVED.closest(9)).isEqualTo(9);
        assertThat(REMOVED.closest(10)).isEqualTo(10);
        assertThat(REMOVED.closest(29)).isEqualTo(10);
        assertThat(REMOVED.closest(31)).isEqualTo(11);
        assertThat(TimeMap.IDENTITY.closest(77)).isEqualTo(77);
    }

    @Test
    void what_is_left_of_a_span_comes_in_pieces_with_their_places_now() {
        assertThat(REMOVED.kept(new Span(5, 35))).containsExactly(new TimeMap.Piece(5, 10, 5), new TimeMap.Piece(30, 35, 10));
        assertThat(REMOVED.kept(new Span(10, 30))).isEmpty();
        assertThat(REMOVED.kept(new Span(0, 10))).containsExactly(new TimeMap.Piece(0, 10, 0));
    }

    @Test
    void back_and_forth_is_where_it_was_but_for_what_is_gone() {
        assertThat(REMOVED.inverse().map(10)).hasValue(30);
        assertThat(REMOVED.inverse().then(REMOVED)).isEqualTo(TimeMap.IDENTITY);
        assertThat(REMOVED.then(REMOVED.inverse()).map(15)).isEmpty();
        assertThat(REMOVED.then(REMOVED.inverse()).map(40)).hasValue(40);
        assertThat(TimeMap.removing(new Span(0, 5)).pieces()).as("nothing lies before the first frame").hasSize(1);
    }

    static IntStream seeds() {
        return Seeds.first(200);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void several_removals_are_what_a_list_of_frames_becomes(int seed) {
        Random random = new Random(seed);
        List<Integer> frames = new ArrayList<>(IntStream.range(0, 200).boxed().toList());
        TimeMap map = TimeMap.IDENTITY;
        for (int i = 0; i < 5; i++) {
            int start = random.nextInt(frames.size());
            int end = Math.min(frames.size(), start + 1 + random.nextInt(20));
            frames.subList(start, end).clear();
            map = map.then(TimeMap.removing(new Span(start, end)));
        }
        for (int frame = 0; frame < 200; frame++) {
            int now = frames.indexOf(frame);
            assertThat(map.map(frame)).isEqualTo(now < 0 ? OptionalLong.empty() : OptionalLong.of(now));
            if (now >= 0) {
                assertThat(map.inverse().map(now)).hasValue(frame);
            }
        }
    }

    @Test
    void tracks_that_have_kept_their_time_are_left_out_of_the_maps() {
        TimeMaps maps = new TimeMaps(Map.of(1L, REMOVED, 2L, TimeMap.IDENTITY));
        assertThat(maps.byTrack()).containsOnlyKeys(1L);
        assertThat(maps.of(2).map(15)).hasValue(15);
        assertThat(maps.inverse().then(maps)).isEqualTo(TimeMaps.NONE);
        assertThat(maps.then(new TimeMaps(Map.of(3L, REMOVED))).byTrack()).containsOnlyKeys(1L, 3L);
    }
}

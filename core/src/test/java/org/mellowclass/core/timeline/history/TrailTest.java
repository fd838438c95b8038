package org.mellowclass.core.timeline.history;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.TimeMap;
import org.mellowclass.core.timeline.TimeMaps;

class TrailTest {

    private static final TimeMaps CUT = new TimeMaps(Map.of(1L, TimeMap.removing(new Span(10, 20))));
    private static final TimeMaps LATER_CUT = new TimeMaps(Map.of(1L, TimeMap.removing(new Span(50, 55))));

    private static TimeMap from(String start, Trail.Step... steps) {
        return Trail.maps(start, List.of(steps)).of(1);
    }

    @Test
    void several_revisions_move_one_after_the_other() {
        TimeMap map = from("a", new Trail.Step("b", CUT), new Trail.Step("c", LATER_CUT));
        assertThat(map.map(15)).isEmpty();
        assertThat(map.map(30)).hasValue(20);
        assertThat(map.map(70)).hasValue(55);
        assertThat(from("a").map(15)).hasValue(15);
    }

    @Test
    void what_was_done_and_undone_on_the_way_has_moved_nothing() {
        assertThat(from("a", new Trail.Step("b", CUT), new Trail.Step("a", CUT.inverse()))).isEqualTo(TimeMap.IDENTITY);
        TimeMap map = from("a", new Trail.Step("b", CUT), new Trail.Step("c", LATER_CUT), new Trail.Step("b", LATER_CUT.inverse()));
        assertThat(map.map(62)).as("only the first cut is left").hasValue(52);
        assertThat(map.map(64)).hasValue(54);
    }

    @Test
    void an_undo_beyond_the_beginning_brings_back_what_was_cut_before() {
        assertThat(from("b", new Trail.Step("a", CUT.inverse())).map(10)).hasValue(20);
    }
}

package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mellowclass.core.testing.Timelines.TAKES;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Timeline;

class LayTakeTest {

    @Test
    void a_take_lands_on_a_new_track_of_the_name_that_was_given() {
        Timeline timeline = new LayTake(7, 10_000, 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline();
        assertThat(timeline.tracks()).singleElement().satisfies(track -> {
            assertThat(track.name()).isEqualTo("Noor");
            assertThat(track.clips()).containsExactly(Timelines.clip(2, 7, 0, 0, 10_000));
        });
    }

    @Test
    void the_next_take_lands_behind_it_and_nothing_is_laid_over_anything() {
        Timeline first = new LayTake(7, 10_000, 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline();
        Timeline byName = new LayTake(8, 500, 0, "Noor").applyTo(first, TAKES).timeline();
        Timeline byId = new LayTake(8, 500, first.tracks().get(0).id(), "").applyTo(first, TAKES).timeline();
        assertThat(byName).isEqualTo(byId);
        assertThat(byName.tracks()).hasSize(1);
        assertThat(byName.tracks().get(0).clips().get(1).startFrame()).isEqualTo(10_000);
        assertThat(byName.endFrame()).isEqualTo(10_500);
    }

    @Test
    void a_track_without_a_name_or_an_unknown_one_is_refused() {
        assertThatThrownBy(() -> new LayTake(7, 100, 0, " ").applyTo(Timeline.empty(), TAKES))
                .isInstanceOf(EditRefused.class).hasMessage("NAME_MISSING");
        assertThatThrownBy(() -> new LayTake(7, 100, 5, "Noor").applyTo(Timeline.empty(), TAKES))
                .isInstanceOf(EditRefused.class).hasMessage("NO_SUCH_TRACK");
    }
}

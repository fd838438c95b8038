package org.mellowclass.core.timeline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;

import org.junit.jupiter.api.Test;

class TimelineTest {

    private static Clip clip(long startFrame, long frames) {
        return new Clip(2, new TakeSource(1), startFrame, 0, frames, 0, Fade.NONE, Fade.NONE);
    }

    private static Timeline with(Clip clip, Flag... flags) {
        return new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(clip))), List.of(flags), 9);
    }

    @Test
    void three_hours_are_the_greatest_length() {
        long threeHours = 3L * 60 * 60 * 48_000;
        assertThat(with(clip(threeHours - 10, 10), new Flag(3, 1, threeHours, "end")).endFrame()).isEqualTo(threeHours);
        assertThatThrownBy(() -> with(clip(threeHours - 10, 11))).isInstanceOf(TimelineTooLong.class);
        assertThatThrownBy(() -> with(clip(0, 10), new Flag(3, 1, threeHours + 1, "far"))).isInstanceOf(TimelineTooLong.class);
    }

    @Test
    void no_sum_of_frames_runs_over() {
        assertThatThrownBy(() -> clip(Long.MAX_VALUE, 1)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Clip(2, new TakeSource(1), 0, Long.MAX_VALUE - 4, 5, 0, Fade.NONE, Fade.NONE)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> clip(10, 5).movedBy(Long.MAX_VALUE)).isInstanceOf(ArithmeticException.class);
    }
}

package org.mellowclass.core.sound;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Random;

import org.junit.jupiter.api.Test;

class SpanTest {

    @Test
    void spans_that_touch_are_one_and_so_are_those_that_lie_as_close_as_is_said() {
        List<Span> spans = List.of(new Span(10, 20), new Span(0, 5), new Span(20, 30), new Span(33, 40), new Span(12, 14));
        assertThat(Span.joined(spans, 0)).containsExactly(new Span(0, 5), new Span(10, 30), new Span(33, 40));
        assertThat(Span.joined(spans, 3)).containsExactly(new Span(0, 5), new Span(10, 40));
        assertThat(Span.joined(List.of(), 0)).isEmpty();
    }

    /** Against a slow reference: every frame for itself. */
    @Test
    void together_they_hold_the_very_frames_that_they_held_apart() {
        for (int seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            List<Span> spans = new ArrayList<>();
            BitSet frames = new BitSet();
            for (int i = random.nextInt(12); i > 0; i--) {
                int start = random.nextInt(200);
                int end = start + 1 + random.nextInt(30);
                spans.add(new Span(start, end));
                frames.set(start, end);
            }
            BitSet joined = new BitSet();
            long before = -1;
            for (Span span : Span.joined(spans, 0)) {
                assertThat(span.startFrame()).as("apart, and in order").isGreaterThan(before);
                before = span.endFrame();
                joined.set((int) span.startFrame(), (int) span.endFrame());
            }
            assertThat(joined).isEqualTo(frames);
        }
    }
}

package org.mellowclass.core.talk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.SwapPassage;
import org.mellowclass.core.timeline.edit.TakeFacts;

/** A line (take 1) in which somebody speaks from 1 to 3, 4 to 6 and 7 to 9 s of ten, and a retake (take 2) with words from 2 to 5 s of six. */
class RetakeTest {

    private static final long SECOND = Frames.RATE;
    private static final TalkFacts FACTS = take -> Optional.of(take == 1
            ? new TalkFacts.Measured(true, List.of(span(0, 1), span(3, 4), span(6, 7), span(9, 10)), -20.0)
            : new TalkFacts.Measured(true, List.of(span(0, 2), span(5, 6)), -20.0));
    private static final TakeFacts TAKES = new TakeFacts() {
        @Override
        public OptionalLong frames(long takeId) {
            return OptionalLong.of((takeId == 1 ? 10 : 6) * SECOND);
        }

        @Override
        public Optional<Span> room(long takeId) {
            return Optional.empty();
        }
    };
    private static final Timeline PAGE = new Timeline(List.of(new Track(10, "Noor", 1, 0, false, List.of(Timelines.clip(11, 1, 0, 0, 10 * SECOND))),
            new Track(20, "Music", 1, 0, false, List.of(Timelines.clip(21, 3, 0, 0, 10 * SECOND)))), List.of(), 30);

    private static Span span(double start, double end) {
        return new Span(Math.round(start * SECOND), Math.round(end * SECOND));
    }

    @Test
    void the_first_word_of_the_retake_stands_where_the_first_word_stood() {
        assertThat(Retake.of(PAGE, 10, span(3.5, 6.4), 2, 6 * SECOND, FACTS)).isEqualTo(span(1.5, 5.4));
        assertThat(Retake.of(PAGE, 10, span(4, 6), 2, 6 * SECOND, FACTS)).as("a breath and a soft consonant are left").isEqualTo(span(1.92, 5.12));
        assertThat(Retake.of(PAGE, 10, span(3.5, 6.4), 2, 6 * SECOND, take -> Optional.empty())).as("not measured").isEqualTo(span(0, 6));
    }

    @Test
    void a_longer_one_opens_time_on_the_tied_tracks_and_a_shorter_one_closes_it() {
        Timeline longer = new SwapPassage(10, span(4, 6), 2, span(2, 5), Set.of(20L)).applyTo(PAGE, TAKES).timeline();
        assertThat(longer.tracks()).extracting(Track::endFrame).containsExactly(11 * SECOND, 11 * SECOND);
        List<Clip> clips = longer.tracks().get(0).clips();
        assertThat(clips).extracting(Clip::span).containsExactly(span(0, 4), span(4, 7), span(7, 11));
        assertThat(clips).extracting(Clip::sourceFrame).containsExactly(0L, 2 * SECOND, 6 * SECOND);
        Timeline shorter = new SwapPassage(10, span(4, 6), 2, span(2, 3), Set.of(20L)).applyTo(PAGE, TAKES).timeline();
        assertThat(shorter.tracks()).extracting(Track::endFrame).containsExactly(9 * SECOND, 9 * SECOND);
        assertThat(shorter.tracks().get(0).clips()).extracting(Clip::span).containsExactly(span(0, 4), span(4, 5), span(5, 9));
        assertThatThrownBy(() -> new SwapPassage(10, span(4, 6), 2, span(2, 7), Set.of()).applyTo(PAGE, TAKES)).hasMessage("BEYOND_THE_TAKE");
    }
}

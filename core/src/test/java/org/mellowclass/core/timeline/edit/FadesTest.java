package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.List;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

class FadesTest {

    private static final Fade SECOND = Fade.of(48_000, Fade.Shape.GENTLE);

    private static Timeline page(Clip... clips) {
        return new Timeline(List.of(new Track(1, "Music", 1, 0, false, List.of(clips))), List.of(), 20);
    }

    private static Clip clip(long id, long start, long frames, Fade in, Fade out) {
        return new Clip(id, new TakeSource(7), start, start, frames, 0, in, out);
    }

    @Test
    void fades_and_crossfades_are_listed_and_short_edges_are_not() {
        Timeline page = page(clip(2, 0, 200_000, SECOND, SECOND), clip(3, 152_000, 100_000, SECOND, Fade.EDGE), clip(4, 300_000, 100_000, Fade.EDGE, SECOND));
        assertThat(Fades.of(page)).extracting(Fades.Listed::clipId, Fades.Listed::kind, Fades.Listed::startFrame, Fades.Listed::frames, Fades.Listed::stray)
                .containsExactly(tuple(2L, Fades.Kind.IN, 0L, 48_000L, false), tuple(3L, Fades.Kind.CROSSFADE, 152_000L, 48_000L, false),
                        tuple(4L, Fades.Kind.OUT, 352_000L, 48_000L, false));
        assertThatThrownBy(() -> Fades.clearStrays(page)).hasMessage("CHANGES_NOTHING");
    }

    @Test
    void what_a_cut_has_left_of_a_fade_and_a_dip_between_clips_are_left_over_and_go_in_one_edit() {
        Timeline faded = page(clip(2, 0, 200_000, SECOND, Fade.EDGE), clip(3, 200_000, 100_000, SECOND, Fade.EDGE));
        Timeline cut = new Remove(new Span(0, 10_000), Set.of(1L)).applyTo(faded, TAKES).timeline();
        assertThat(Fades.of(cut)).extracting(Fades.Listed::frames, Fades.Listed::stray).containsExactly(tuple(38_000L, true), tuple(48_000L, true));
        Timeline clear = Fades.clearStrays(cut).applyTo(cut, TAKES).timeline();
        assertThat(Fades.of(clear)).isEmpty();
        assertThat(clear.tracks().get(0).clips()).extracting(Clip::span).isEqualTo(cut.tracks().get(0).clips().stream().map(Clip::span).toList());
    }
}

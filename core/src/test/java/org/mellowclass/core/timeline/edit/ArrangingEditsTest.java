package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.mellowclass.core.testing.Timelines.TAKES;
import static org.mellowclass.core.testing.Timelines.clip;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.VolumeCurve.Point;
import org.mellowclass.core.treatment.Treatment;

/** Edits that arrange what has been recorded: gaps, copies, joins, tracks. */
class ArrangingEditsTest {

    /** Noor speaks twice, Ravi once in between; the bells have a curve. */
    private static final Timeline TALK = new Timeline(List.of(
            new Track(1, "Noor", 1, 0, false, List.of(clip(11, 1, 0, 10_000, 48_000), clip(12, 1, 96_000, 100_000, 48_000))),
            new Track(2, "Ravi", 1, 0, false, List.of(clip(13, 2, 48_000, 10_000, 48_000))),
            new Track(3, "Bells", 2, 0, 0, false, new VolumeCurve(List.of(new Point(0, -20), new Point(100_000, 0))), List.of(clip(14, 3, 0, 0, 150_000)))),
            List.of(new Flag(15, 2, 60_000, "eels")), 20);

    private static Timeline after(Edit edit) {
        return edit.applyTo(TALK, TAKES).timeline();
    }

    private static void refuses(Edit edit, EditRefused.Reason reason) {
        assertThatThrownBy(() -> after(edit)).isInstanceOfSatisfying(EditRefused.class, refused -> assertThat(refused.reason()).isEqualTo(reason));
    }

    @Test
    void a_gap_is_opened_in_the_middle_of_a_clip_and_flags_and_curves_go_along() {
        Timeline opened = after(new OpenUp(50_000, 10_000, Set.of(1L, 2L, 3L)));
        assertThat(opened.tracks().get(1).clips()).extracting(Clip::startFrame, Clip::sourceFrame, Clip::frames)
                .containsExactly(tuple(48_000L, 10_000L, 2_000L), tuple(60_000L, 12_000L, 46_000L));
        assertThat(opened.tracks().get(0).clips()).extracting(Clip::startFrame).containsExactly(0L, 106_000L);
        assertThat(opened.flags()).extracting(Flag::frame).containsExactly(70_000L);
        VolumeCurve curve = opened.tracks().get(2).curve();
        assertThat(curve.gainDbAt(49_999)).isEqualTo(TALK.tracks().get(2).curve().gainDbAt(49_999));
        assertThat(curve.gainDbAt(60_000)).isEqualTo(-10);
        assertThat(curve.gainDbAt(110_000)).isEqualTo(0);
    }

    @Test
    void a_copy_is_laid_in_with_what_follows_moving_along_or_over_what_is_there() {
        Span span = new Span(40_000, 60_000);
        List<LayCopy.Copy> copies = LayCopy.copies(TALK, span, Set.of(1L, 2L));
        Timeline in = after(new LayCopy(copies, 20_000, 0, Set.of(1L, 2L)));
        assertThat(in.tracks().get(0).clips()).extracting(Clip::startFrame, Clip::sourceFrame, Clip::frames)
                .containsExactly(tuple(0L, 50_000L, 8_000L), tuple(20_000L, 10_000L, 48_000L), tuple(116_000L, 100_000L, 48_000L));
        assertThat(in.tracks().get(1).clips()).extracting(Clip::startFrame, Clip::sourceFrame, Clip::frames)
                .containsExactly(tuple(8_000L, 10_000L, 12_000L), tuple(68_000L, 10_000L, 48_000L));
        assertThat(in.tracks().get(2).clips()).as("it was not among those").isEqualTo(TALK.tracks().get(2).clips());
        Timeline over = after(new LayCopy(copies, 20_000, 100_000, Set.of()));
        assertThat(over.tracks().get(0).clips()).extracting(Clip::startFrame, Clip::sourceFrame, Clip::frames)
                .containsExactly(tuple(0L, 10_000L, 48_000L), tuple(96_000L, 100_000L, 4_000L), tuple(100_000L, 50_000L, 8_000L), tuple(120_000L, 124_000L, 24_000L));
    }

    @Test
    void a_span_is_cleared_and_nothing_moves() {
        assertThat(after(new Clear(new Span(20_000, 100_000), Set.of(1L))).tracks().get(0).clips()).extracting(Clip::startFrame, Clip::frames)
                .containsExactly(tuple(0L, 20_000L), tuple(100_000L, 44_000L));
        assertThat(after(new RemoveClip(12)).tracks().get(0).clips()).extracting(Clip::id).containsExactly(11L);
        refuses(new RemoveClip(99), EditRefused.Reason.NO_SUCH_CLIP);
    }

    @Test
    void what_is_free_is_filled_with_the_room_of_the_take_before_it_or_else_after_it() {
        Timeline filled = after(new Fill(new Span(40_000, 100_000), Set.of(1L, 2L)));
        assertThat(filled.tracks().get(0).clips()).extracting(Clip::source, Clip::startFrame, Clip::frames)
                .contains(tuple(new RoomSource(1, Treatment.NONE, 100, 20_000), 48_000L, 48_000L)).hasSize(3);
        assertThat(filled.tracks().get(1).clips()).extracting(Clip::source, Clip::startFrame, Clip::frames)
                .contains(tuple(new RoomSource(2, Treatment.NONE, 50_000, 8_000), 40_000L, 8_000L), tuple(new RoomSource(2, Treatment.NONE, 50_000, 8_000), 96_000L, 4_000L));
        refuses(new Fill(new Span(0, 40_000), Set.of(1L)), EditRefused.Reason.NOTHING_THERE);
        refuses(new Fill(new Span(150_000, 160_000), Set.of(3L)), EditRefused.Reason.NOTHING_THERE);
    }

    @Test
    void a_fade_is_as_long_as_the_clip_allows_and_a_crossfade_takes_only_another_shape() {
        Fade slow = Fade.of(30_000, Fade.Shape.SLOW_START);
        assertThat(after(new SetFade(11, Trim.Edge.START, 30_000, Fade.Shape.SLOW_START)).clip(11).orElseThrow().fadeIn()).isEqualTo(slow);
        refuses(new SetFade(11, Trim.Edge.START, 48_001, Fade.Shape.GENTLE), EditRefused.Reason.FADE_TOO_LONG);
        Timeline crossed = after(new Move(12, 1, 40_000));
        Timeline straight = new SetFade(12, Trim.Edge.START, 100, Fade.Shape.STRAIGHT).applyTo(crossed, TAKES).timeline();
        assertThat(straight.clip(12).orElseThrow().fadeIn()).isEqualTo(Fade.of(8_000, Fade.Shape.STRAIGHT));
        assertThat(straight.clip(11).orElseThrow().fadeOut()).isEqualTo(Fade.of(8_000, Fade.Shape.STRAIGHT));
    }

    @Test
    void a_join_moves_and_no_sound_does() {
        Timeline cut = new Remove(new Span(10_000, 30_000), Set.of(1L)).applyTo(TALK, TAKES).timeline();
        long second = cut.tracks().get(0).clips().get(1).id();
        Timeline later = new MoveJoin(11, 3_000).applyTo(cut, TAKES).timeline();
        assertThat(later.tracks().get(0).clips()).extracting(Clip::startFrame, Clip::sourceFrame, Clip::frames)
                .startsWith(tuple(0L, 10_000L, 13_000L), tuple(13_000L, 43_000L, 15_000L));
        assertThat(later.clip(second).orElseThrow().fadeIn().seam()).as("they still meet").isEqualTo(Fade.Seam.EQUAL_POWER);
        refuses(new MoveJoin(11, 100), EditRefused.Reason.NO_JOIN);
        assertThatThrownBy(() -> new MoveJoin(11, 17_500).applyTo(cut, TAKES)).hasMessage("TOO_SHORT");
    }

    @Test
    void tracks_are_named_tied_put_elsewhere_dropped_and_made() {
        assertThat(after(new NameTrack(1, " Noor by the sea ")).tracks().get(0).name()).isEqualTo("Noor by the sea");
        refuses(new NameTrack(1, "Ravi"), EditRefused.Reason.NAME_TAKEN);
        assertThat(after(new TieTrack(2, 0)).tracks()).extracting(Track::group).containsExactly(1, 3, 2);
        assertThat(after(new TieTrack(3, 1)).tracks()).extracting(Track::group).containsExactly(1, 1, 1);
        refuses(new TieTrack(3, 0), EditRefused.Reason.CHANGES_NOTHING);
        refuses(new TieTrack(3, 9), EditRefused.Reason.NO_SUCH_TRACK);
        assertThat(after(new OrderTrack(3, 0)).tracks()).extracting(Track::name).containsExactly("Bells", "Noor", "Ravi");
        assertThat(after(new AddTrack("Wind")).tracks()).extracting(Track::name).containsExactly("Noor", "Ravi", "Bells", "Wind");
        refuses(new AddTrack("Ravi"), EditRefused.Reason.NAME_TAKEN);
        Timeline dropped = after(new DropTrack(2));
        assertThat(dropped.tracks()).extracting(Track::name).containsExactly("Noor", "Bells");
        assertThat(dropped.flags()).isEmpty();
        refuses(new PanTrack(1, 1.5), EditRefused.Reason.PAN_OUT_OF_RANGE);
        refuses(new MuteTrack(1, false), EditRefused.Reason.CHANGES_NOTHING);
        assertThat(after(new SetClipGains(Map.of(11L, -3.0, 13L, 2.5))).tracks()).extracting(track -> track.clips().get(0).gainDb())
                .containsExactly(-3.0, 2.5, 0.0);
    }

    // ---- joins of what was removed, by ear

    /** The RMS level in dB of stretches of 2 ms around the join, against that of the whole. */
    private static double deepestDipDb(Signal sound, Span removed) throws IOException {
        Timeline whole = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(clip(2, 1, 0, 0, sound.frames())))), List.of(), 3);
        Timeline cut = new Remove(removed, Set.of(1L)).applyTo(whole, TAKES).timeline();
        try (Mixer mixer = new Mixer(cut, (take, treatment) -> sound)) {
            float[] mix = Signal.read(mixer.whole()).samples()[0];
            double all = power(mix, 0, mix.length);
            double deepest = 0;
            for (long at = removed.startFrame() - 480; at < removed.startFrame() + 480; at += 48) {
                deepest = Math.min(deepest, 10 * Math.log10(power(mix, (int) at, (int) at + 480) / all));
            }
            return deepest;
        }
    }

    private static double power(float[] samples, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += samples[i] * samples[i];
        }
        return sum / (to - from);
    }

    @Test
    void a_steady_sound_loses_at_most_one_decibel_at_a_join() throws IOException {
        float[] tone = new float[96_000];
        for (int i = 0; i < tone.length; i++) {
            tone[i] = (float) (0.25 * Math.sin(2 * Math.PI * 1000 * i / 48_000));
        }
        assertThat(deepestDipDb(Signal.of(48_000, tone), new Span(48_000, 48_000 + 48 * 100))).as("a tone, cut at whole periods").isGreaterThan(-1);
        double sum = 0;
        for (int seed = 1; seed <= 20; seed++) {
            sum += deepestDipDb(Signal.noise(1, -20, 2, seed), new Span(30_000, 50_000));
        }
        assertThat(sum / 20).as("noise, whose own level wavers in 10 ms").isGreaterThan(-1);
    }

    @Test
    void an_edge_that_has_nothing_to_meet_any_more_lies_inside_its_clip_again() {
        Timeline cut = new Remove(new Span(10_000, 30_000), Set.of(1L)).applyTo(TALK, TAKES).timeline();
        Clip second = cut.tracks().get(0).clips().get(1);
        assertThat(cut.clip(11).orElseThrow().fadeOut()).isEqualTo(Fade.EDGE.meeting(Fade.Seam.EQUAL_POWER));
        assertThat(second.fadeIn()).isEqualTo(Fade.EDGE.meeting(Fade.Seam.EQUAL_POWER));
        Timeline apart = new Move(second.id(), 1, 20_000).applyTo(cut, TAKES).timeline();
        assertThat(apart.clip(11).orElseThrow().fadeOut()).isEqualTo(Fade.EDGE);
        assertThat(apart.clip(second.id()).orElseThrow().fadeIn()).isEqualTo(Fade.EDGE);
    }
}

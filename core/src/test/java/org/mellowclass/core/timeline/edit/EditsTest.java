package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Seeds;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TimeMap;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Treatment;

/** What must hold for every edit on every timeline, tried on hundreds of generated sequences. */
class EditsTest {

    private static final long EDGE = Fade.EDGE_FRAMES;

    static IntStream seeds() {
        return Seeds.first(200);
    }

    /** One frame of a source. */
    private record SourceFrame(Source source, long frame) {
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void no_sample_is_lost_doubled_or_moved_but_where_the_edit_says_so(int seed) {
        Random random = new Random(seed);
        Timeline before = Timelines.generate(random);
        int applied = 0;
        for (int step = 0; step < 12 && before.endFrame() > 0; step++) {
            Edit edit = Timelines.edit(before, random);
            Edited edited;
            try {
                edited = edit.applyTo(before, TAKES);
            } catch (EditRefused refused) {
                continue;
            }
            applied++;
            for (Track track : before.tracks()) {
                for (long frame = random.nextInt(397); frame < before.endFrame(); frame += 397) {
                    assertHeard(edit, before, edited, track, frame);
                }
                // around every old edge, where mistakes of one frame would be
                for (Clip clip : track.clips()) {
                    for (long frame : List.of(clip.startFrame(), clip.endFrame() - 1)) {
                        assertHeard(edit, before, edited, track, frame);
                    }
                }
            }
            assertIdsAreNew(before, edited.timeline());
            before = edited.timeline();
        }
        assertThat(applied).isPositive();
    }

    private static void assertHeard(Edit edit, Timeline before, Edited edited, Track track, long frame) {
        Map<SourceFrame, Double> was = heard(track, frame);
        if (edit instanceof DropTrack drop && drop.trackId() == track.id()) {
            assertThat(edited.timeline().track(track.id())).isEmpty();
            return;
        }
        Track now = edited.timeline().track(track.id()).orElseThrow();
        if (!(edit instanceof DrawCurve)) {
            edited.maps().of(track.id()).map(frame).ifPresent(there ->
                    assertThat(now.curve().gainDbAt(there)).as("%s", edit).isCloseTo(track.curve().gainDbAt(frame), within(1e-9)));
        }
        if (edit instanceof OpenUp open && open.trackIds().contains(track.id())) {
            if (Math.abs(frame - open.frame()) > EDGE) {
                assertSame(edit, heard(now, edited.maps().of(track.id()).map(frame).orElseThrow()), was, 1);
            }
        } else if (edit instanceof LayCopy lay && (lay.openedIds().contains(track.id()) || lay.copies().stream().anyMatch(copy -> copy.trackId() == track.id()))) {
            long end = lay.startFrame() + (lay.openedIds().isEmpty() ? lay.frames() : 0);
            if (frame < lay.startFrame() - EDGE || frame > end + EDGE) {
                assertSame(edit, heard(now, edited.maps().of(track.id()).map(frame).orElseThrow()), was, 1);
            }
        } else if (edit instanceof SwapPassage || edit instanceof PlayTrick) {
            Span passage = edit instanceof SwapPassage swap ? swap.passage() : ((PlayTrick) edit).passage();
            Set<Long> tied = edit instanceof SwapPassage swap ? swap.tiedIds() : ((PlayTrick) edit).tiedIds();
            boolean besides = tied.contains(track.id()) && frame >= passage.startFrame() - EDGE && frame < passage.endFrame() + EDGE;
            if (!besides) {
                assertSame(edit, heard(now, edited.maps().of(track.id()).map(frame).orElseThrow()), was, 1);
            }
        } else if (edit instanceof Remove remove && remove.trackIds().contains(track.id())) {
            Span span = remove.span();
            if (frame < span.startFrame() - EDGE || frame >= span.endFrame() + EDGE) {
                assertSame(edit, heard(now, edited.maps().of(track.id()).map(frame).orElseThrow()), was, 1);
            }
        } else if (edit instanceof SpanEdit onSpan && onSpan.trackIds().contains(track.id())) {
            Span span = onSpan.span();
            boolean inside = frame >= span.startFrame() && frame < span.endFrame();
            boolean nearEdge = Math.abs(frame - span.startFrame()) <= EDGE || Math.abs(frame - span.endFrame()) <= EDGE
                    || track.clips().stream().anyMatch(clip -> Math.abs(frame - clip.startFrame()) <= EDGE
                            || Math.abs(frame - clip.endFrame()) <= EDGE);
            if (edit instanceof Split || !inside && !nearEdge && edit instanceof Soften) {
                assertSame(edit, heard(now, frame), was, 1);
            } else if (edit instanceof Soften && !nearEdge) {
                assertSame(edit, heard(now, frame), was, Decibels.toAmplitude(Soften.BY_DB));
            } else if (edit instanceof Blank && inside) {
                assertThat(heard(now, frame).keySet()).allMatch(at -> at.source() instanceof RoomSource);
            } else if (!inside && !nearEdge) {
                assertSame(edit, heard(now, frame), was, 1);
            }
        } else if (edit instanceof Move move) {
            Clip old = before.clip(move.clipId()).orElseThrow();
            Clip moved = edited.timeline().clip(move.clipId()).orElseThrow();
            assertThat(moved.sourceFrame()).isEqualTo(old.sourceFrame());
            assertThat(moved.frames()).isEqualTo(old.frames());
            boolean there = near(old, frame) || near(moved, frame) || inTheFadeOfANeighbour(track, List.of(old, moved), frame);
            if (!there || track.id() != move.trackId() && track.clip(old.id()).isEmpty()) {
                assertSame(edit, heard(now, frame), was, 1);
            }
        } else if (edit instanceof Trim trim) {
            Clip old = before.clip(trim.clipId()).orElseThrow();
            Clip trimmed = edited.timeline().clip(trim.clipId()).orElseThrow();
            boolean there = track.clip(old.id()).isPresent() && (near(old, frame) || near(trimmed, frame));
            boolean kept = frame >= old.startFrame() && frame < old.endFrame()
                    && (trim.edge() == Trim.Edge.START ? frame >= trim.frame() + EDGE && frame >= old.startFrame() + Math.max(EDGE, old.fadeIn().reach())
                    : frame < trim.frame() - EDGE && frame < old.endFrame() - Math.max(EDGE, old.fadeOut().reach()));
            if (!there || kept) {
                assertSame(edit, heard(now, frame), was, 1);
            }
        } else if (edit instanceof SetTrackGain gain && gain.trackId() == track.id()) {
            assertThat(now.gainDb()).isEqualTo(gain.gainDb());
            assertThat(now.clips()).isEqualTo(track.clips());
        } else if (edit instanceof SetClipGain gain && track.clip(gain.clipId()).isPresent()) {
            assertThat(now.clip(gain.clipId()).orElseThrow()).isEqualTo(track.clip(gain.clipId()).orElseThrow().withGain(gain.gainDb()));
            assertThat(now.clips()).hasSameSizeAs(track.clips());
        } else if (edit instanceof RemoveClip gone && track.clip(gone.clipId()).isPresent()) {
            Clip old = track.clip(gone.clipId()).orElseThrow();
            if (!near(old, frame) && !inTheFadeOfANeighbour(track, List.of(old), frame)) {
                assertSame(edit, heard(now, frame), was, 1);
            }
        } else if (!(edit instanceof Together)) {
            Footprint touched = edit.footprint(before, TAKES);
            boolean outside = touched.stretches().stream().noneMatch(stretch -> stretch.trackId() == track.id()
                    && frame >= stretch.span().startFrame() - EDGE && frame < stretch.span().endFrame() + EDGE);
            boolean otherTakes = was.keySet().stream().noneMatch(at -> touched.takeIds().contains(at.source().takeId()));
            if (outside && otherTakes) {
                assertSame(edit, heard(now, edit instanceof SwapTake ? goneAlong(track, frame, edited.maps().of(track.id())) : frame), was, 1);
            }
        }
    }

    /** What lies over each other goes as one to where its start has gone; where nothing lies, the time goes. */
    private static long goneAlong(Track track, long frame, TimeMap map) {
        long start = frame;
        for (int i = track.clips().size() - 1; i >= 0; i--) {
            Clip clip = track.clips().get(i);
            if (clip.startFrame() <= start && clip.endFrame() > start) {
                start = clip.startFrame();
            }
        }
        boolean closed = map.map(frame).isEmpty() || map.closest(frame) < frame;
        return closed ? map.closest(frame) : frame + map.closest(start) - start;
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void flags_go_where_the_map_of_their_track_takes_them(int seed) {
        Random random = new Random(seed);
        Timeline before = Timelines.generate(random);
        Remove remove = Timelines.removal(before, random);
        Edited edited;
        try {
            edited = remove.applyTo(before, TAKES);
        } catch (EditRefused nothingThere) {
            return;
        }
        for (Flag flag : before.flags()) {
            boolean gone = remove.trackIds().contains(flag.trackId())
                    && flag.frame() >= remove.span().startFrame() && flag.frame() < remove.span().endFrame();
            assertThat(edited.timeline().flag(flag.id()).isEmpty()).isEqualTo(gone);
            edited.timeline().flag(flag.id()).ifPresent(now ->
                    assertThat(heard(edited.timeline().track(flag.trackId()).orElseThrow(), now.frame()).keySet())
                            .isEqualTo(heard(before.track(flag.trackId()).orElseThrow(), flag.frame()).keySet()));
        }
    }

    @Test
    void room_and_silence_take_the_place_of_what_is_blanked() {
        Timeline timeline = laid();
        long track = timeline.tracks().get(0).id();
        Span span = new Span(20_000, 30_000);
        Timeline room = new Blank(span, Set.of(track)).applyTo(timeline, Timelines.facts(Map.of(7L, new Span(500, 48_500)))).timeline();
        assertThat(room.tracks().get(0).clips()).extracting(Clip::span)
                .containsExactly(new Span(0, 20_000), span, new Span(30_000, 96_000));
        assertThat(room.tracks().get(0).clips().get(1).source()).isEqualTo(new RoomSource(7, Treatment.NONE, 500, 48_000));
        Timeline silent = new Blank(span, Set.of(track)).applyTo(timeline, TAKES).timeline();
        assertThat(silent.tracks().get(0).clips()).extracting(Clip::span)
                .containsExactly(new Span(0, 20_000), new Span(30_000, 96_000));
    }

    @Test
    void a_clip_moved_over_its_neighbour_gets_a_crossfade_of_equal_power_and_loses_it_when_it_leaves() {
        Timeline timeline = new LayTake(8, 48_000, 0, "Noor").applyTo(laid(), TAKES).timeline();
        Track track = timeline.tracks().get(0);
        Clip second = track.clips().get(1);
        Timeline over = new Move(second.id(), track.id(), 90_000).applyTo(timeline, TAKES).timeline();
        Fade fade = Fade.of(6_000, Fade.Shape.EQUAL_POWER);
        assertThat(over.tracks().get(0).clips()).extracting(Clip::fadeOut).containsExactly(fade, Fade.NONE);
        assertThat(over.tracks().get(0).clips()).extracting(Clip::fadeIn).containsExactly(Fade.NONE, fade);
        for (int i = 0; i < 6000; i += 500) {
            double power = Math.pow(fade.gainAt(i), 2) + Math.pow(fade.gainAt(5999 - i), 2);
            assertThat(power).isCloseTo(1, within(1e-9));
        }
        Timeline away = new Move(second.id(), track.id(), 120_000).applyTo(over, TAKES).timeline();
        assertThat(away.tracks().get(0).clips()).extracting(Clip::fadeOut).containsExactly(Fade.EDGE, Fade.NONE);
        assertThat(away.tracks().get(0).clips().get(1).fadeIn()).isEqualTo(Fade.EDGE);
    }

    @Test
    void a_half_moved_back_over_the_other_half_in_step_fades_with_equal_gain() {
        Timeline timeline = laid();
        long track = timeline.tracks().get(0).id();
        Timeline halves = new Split(50_000, Set.of(track)).applyTo(timeline, TAKES).timeline();
        Clip second = halves.tracks().get(0).clips().get(1);
        Timeline wider = new Trim(halves.tracks().get(0).clips().get(0).id(), Trim.Edge.END, 40_000)
                .applyTo(halves, TAKES).timeline();
        Timeline over = new Move(second.id(), track, 39_000).applyTo(wider, TAKES).timeline();
        assertThat(over.tracks().get(0).clips().get(1).fadeIn()).isEqualTo(Fade.of(1_000, Fade.Shape.EQUAL_POWER));
        assertThat(halves.tracks().get(0).clips().get(0).inStepWith(second)).isTrue();
    }

    @Test
    void edits_that_cannot_apply_say_why() {
        Timeline timeline = new LayTake(8, 48_000, 0, "Noor").applyTo(laid(), TAKES).timeline();
        Track track = timeline.tracks().get(0);
        Clip first = track.clips().get(0);
        Clip second = track.clips().get(1);
        Set<Long> here = Set.of(track.id());
        refuses(timeline, new Split(96_000, here), EditRefused.Reason.NOTHING_THERE);
        refuses(new Remove(new Span(500, 600), here).applyTo(timeline, TAKES).timeline(), new Split(510, here), EditRefused.Reason.IN_A_FADE);
        refuses(timeline, new Split(200_000, here), EditRefused.Reason.SPAN_BEYOND_THE_END);
        refuses(timeline, new Soften(new Span(0, 10), Set.of()), EditRefused.Reason.NO_TRACK_CHOSEN);
        refuses(timeline, new Blank(new Span(0, 10), Set.of(99L)), EditRefused.Reason.NO_SUCH_TRACK);
        refuses(timeline, new Move(99, track.id(), 0), EditRefused.Reason.NO_SUCH_CLIP);
        refuses(timeline, new Move(first.id(), 99, 0), EditRefused.Reason.NO_SUCH_TRACK);
        refuses(timeline, new Move(first.id(), track.id(), 0), EditRefused.Reason.CHANGES_NOTHING);
        refuses(timeline, new Move(second.id(), track.id(), 10_000), EditRefused.Reason.SOUND_IS_THERE);
        refuses(timeline, new Trim(first.id(), Trim.Edge.END, 100_000), EditRefused.Reason.SOUND_IS_THERE);
        refuses(timeline, new Trim(second.id(), Trim.Edge.END, 400_000), EditRefused.Reason.BEYOND_THE_TAKE);
        refuses(timeline, new Trim(second.id(), Trim.Edge.START, 90_000), EditRefused.Reason.BEYOND_THE_TAKE);
        refuses(timeline, new Trim(second.id(), Trim.Edge.END, 96_100), EditRefused.Reason.TOO_SHORT);
        refuses(timeline, new SetClipGain(first.id(), 40), EditRefused.Reason.GAIN_OUT_OF_RANGE);
        refuses(timeline, new SetClipGain(first.id(), Double.NaN), EditRefused.Reason.GAIN_OUT_OF_RANGE);
        refuses(timeline, new SetTrackGain(track.id(), 0), EditRefused.Reason.CHANGES_NOTHING);
        refuses(timeline, new AddFlag(track.id(), 5, "  "), EditRefused.Reason.NAME_MISSING);
        refuses(timeline, new AddFlag(track.id(), -1, "early"), EditRefused.Reason.SPAN_BEYOND_THE_END);
        refuses(timeline, new RemoveFlag(99), EditRefused.Reason.NO_SUCH_FLAG);
    }

    private static Timeline laid() {
        return new LayTake(7, 96_000, 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline();
    }

    private static void refuses(Timeline timeline, Edit edit, EditRefused.Reason reason) {
        assertThatThrownBy(() -> edit.applyTo(timeline, TAKES)).as("%s", edit)
                .isInstanceOfSatisfying(EditRefused.class, e -> assertThat(e.reason()).isEqualTo(reason));
    }

    /** A neighbour that a clip lay over gets another edge when it leaves, however long its crossfade was once. */
    private static boolean inTheFadeOfANeighbour(Track track, List<Clip> clips, long frame) {
        return track.clips().stream().filter(other -> clips.stream().anyMatch(other::overlaps)).anyMatch(other ->
                frame < other.startFrame() + other.fadeIn().reach() || frame >= other.endFrame() - other.fadeOut().reach());
    }

    private static boolean near(Clip clip, long frame) {
        return frame >= clip.startFrame() - EDGE && frame < clip.endFrame() + EDGE;
    }

    /** What a track plays at a frame: which frames of which sources, each with its gain. */
    static Map<SourceFrame, Double> heard(Track track, long frame) {
        Map<SourceFrame, Double> heard = new HashMap<>();
        for (Clip clip : track.clips()) {
            if (frame >= clip.startFrame() && frame < clip.endFrame()) {
                long clipFrame = frame - clip.startFrame();
                heard.merge(new SourceFrame(clip.source(), clip.sourceFrame() + clipFrame),
                        clip.gain() * clip.fadeAt(clipFrame), Double::sum);
            }
        }
        return heard;
    }

    private static void assertSame(Edit edit, Map<SourceFrame, Double> now, Map<SourceFrame, Double> was, double gain) {
        assertThat(now.keySet()).as("%s", edit).isEqualTo(was.keySet());
        was.forEach((frame, before) -> assertThat(now.get(frame)).as("%s", edit).isCloseTo(before * gain, within(1e-9)));
    }

    private static void assertIdsAreNew(Timeline before, Timeline after) {
        Set<Long> old = ids(before);
        Set<Long> now = ids(after);
        assertThat(after.nextId()).isGreaterThanOrEqualTo(before.nextId());
        now.removeAll(old);
        assertThat(now).allMatch(id -> id >= before.nextId() && id < after.nextId());
    }

    private static Set<Long> ids(Timeline timeline) {
        Set<Long> ids = new HashSet<>();
        timeline.tracks().forEach(track -> {
            assertThat(ids.add(track.id())).isTrue();
            track.clips().forEach(clip -> assertThat(ids.add(clip.id())).isTrue());
        });
        timeline.flags().forEach(flag -> assertThat(ids.add(flag.id())).isTrue());
        return ids;
    }
}

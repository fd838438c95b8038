package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Seeds;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

class RemoveTest {

    static IntStream seeds() {
        return Seeds.first(300);
    }

    /** Which frame of which take a track plays, and how loud, apart from the fades that new edges get. */
    private record Heard(long takeId, long takeFrame, double gainDb) {
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void what_is_outside_the_span_is_neither_lost_nor_doubled_and_closes_up(int seed) {
        Random random = new Random(seed);
        Timeline before = Timelines.generate(random);
        Remove remove = Timelines.removal(before, random);
        Timeline after;
        try {
            after = remove.applyTo(before, TAKES).timeline();
        } catch (EditRefused nothingThere) {
            assertThat(nothingThere.reason()).isEqualTo(EditRefused.Reason.NOTHING_THERE);
            assertThat(soundFrom(before, remove)).isFalse();
            return;
        }
        Span gone = remove.span();
        for (Track track : before.tracks()) {
            Track now = after.track(track.id()).orElseThrow();
            if (!remove.trackIds().contains(track.id())) {
                assertThat(now).isEqualTo(track);
                continue;
            }
            for (long frame = 0; frame < before.endFrame() + 100; frame += 37) {
                long old = frame < gone.startFrame() ? frame : frame + gone.frames();
                assertThat(heardAt(now, frame)).as("frame %d", frame).isEqualTo(heardAt(track, old));
            }
            for (long edge : List.of(gone.startFrame() - 1, gone.startFrame())) {
                long old = edge < gone.startFrame() ? edge : edge + gone.frames();
                if (edge >= 0) {
                    assertThat(heardAt(now, edge)).isEqualTo(heardAt(track, old));
                }
            }
        }
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void every_new_edge_is_faded_and_every_old_one_keeps_its_fade(int seed) {
        Random random = new Random(seed);
        Timeline before = Timelines.generate(random);
        Remove remove = Timelines.removal(before, random);
        if (!soundFrom(before, remove)) {
            return;
        }
        Timeline after = remove.applyTo(before, TAKES).timeline();
        for (Track track : after.tracks()) {
            Set<Long> oldStarts = new HashSet<>();
            Set<Long> oldEnds = new HashSet<>();
            before.track(track.id()).orElseThrow().clips().forEach(clip -> {
                oldStarts.add(clip.sourceFrame());
                oldEnds.add(clip.sourceFrame() + clip.frames());
            });
            for (Clip clip : track.clips()) {
                if (!oldStarts.contains(clip.sourceFrame())) {
                    assertThat(clip.fadeIn().edgeFrames()).isEqualTo(Fade.EDGE_FRAMES);
                }
                if (!oldEnds.contains(clip.sourceFrame() + clip.frames())) {
                    assertThat(clip.fadeOut().edgeFrames()).isEqualTo(Fade.EDGE_FRAMES);
                }
            }
        }
    }

    @Test
    void clip_ids_are_never_used_twice() {
        Timeline timeline = new LayTake(7, 10_000, 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline();
        for (int i = 0; i < 5; i++) {
            timeline = new Remove(new Span(100 + i * 1000, 200 + i * 1000), timeline.trackIds()).applyTo(timeline, TAKES).timeline();
        }
        List<Long> ids = timeline.tracks().get(0).clips().stream().map(Clip::id).toList();
        assertThat(ids).hasSize(6).doesNotHaveDuplicates();
        assertThat(timeline.nextId()).isGreaterThan(ids.stream().mapToLong(Long::longValue).max().orElseThrow());
    }

    @Test
    void a_removal_that_cannot_apply_says_why() {
        Timeline timeline = new LayTake(7, 10_000, 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline();
        long track = timeline.tracks().get(0).id();
        refuses(new Remove(new Span(0, 10), Set.of()), timeline, EditRefused.Reason.NO_TRACK_CHOSEN);
        refuses(new Remove(new Span(0, 10), Set.of(99L)), timeline, EditRefused.Reason.NO_SUCH_TRACK);
        refuses(new Remove(new Span(10_000, 10_010), Set.of(track)), timeline, EditRefused.Reason.SPAN_BEYOND_THE_END);
        assertThatThrownBy(() -> new Span(10, 10)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Span(-1, 10)).isInstanceOf(IllegalArgumentException.class);
    }

    private static void refuses(Edit edit, Timeline timeline, EditRefused.Reason reason) {
        assertThatThrownBy(() -> edit.applyTo(timeline, TAKES))
                .isInstanceOfSatisfying(EditRefused.class, e -> assertThat(e.reason()).isEqualTo(reason));
    }

    /** Whether there is sound in the span or behind it on a chosen track, so that removing changes something. */
    private static boolean soundFrom(Timeline timeline, Remove remove) {
        return remove.trackIds().stream().map(id -> timeline.track(id).orElseThrow())
                .anyMatch(track -> track.endFrame() > remove.span().startFrame());
    }

    private static List<Heard> heardAt(Track track, long frame) {
        return track.clips().stream().filter(clip -> clip.startFrame() <= frame && frame < clip.endFrame())
                .map(clip -> new Heard(clip.source().takeId(), clip.sourceFrame() + frame - clip.startFrame(), clip.gainDb()))
                .toList();
    }
}

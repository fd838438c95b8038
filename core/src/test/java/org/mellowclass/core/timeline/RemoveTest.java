package org.mellowclass.core.timeline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;

class RemoveTest {

    static IntStream seeds() {
        return IntStream.range(0, 300);
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
            after = remove.applyTo(before);
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
        Timeline after = remove.applyTo(before);
        for (Track track : after.tracks()) {
            Set<Long> oldStarts = new HashSet<>();
            Set<Long> oldEnds = new HashSet<>();
            before.track(track.id()).orElseThrow().clips().forEach(clip -> {
                oldStarts.add(clip.takeFrame());
                oldEnds.add(clip.takeFrame() + clip.frames());
            });
            for (Clip clip : track.clips()) {
                if (!oldStarts.contains(clip.takeFrame())) {
                    assertThat(clip.fadeInFrames()).isEqualTo(Clip.EDGE_FADE_FRAMES);
                }
                if (!oldEnds.contains(clip.takeFrame() + clip.frames())) {
                    assertThat(clip.fadeOutFrames()).isEqualTo(Clip.EDGE_FADE_FRAMES);
                }
            }
        }
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void undo_and_redo_bring_back_equal_values_through_any_number_of_edits(int seed) {
        Random random = new Random(seed);
        List<Timeline> values = new ArrayList<>(List.of(Timeline.empty()));
        List<HistoryPoint> points = new ArrayList<>(List.of(HistoryPoint.first()));
        // what undo and redo should bring back, kept the plain way: as two stacks
        List<Timeline> undoStack = new ArrayList<>();
        List<Timeline> redoStack = new ArrayList<>();
        for (int step = 0; step < 60; step++) {
            Timeline head = values.get(values.size() - 1);
            HistoryPoint point = points.get(points.size() - 1);
            int what = random.nextInt(4);
            if (what == 0 && !undoStack.isEmpty()) {
                int target = (int) point.undoTarget().orElseThrow() - 1;
                redoStack.add(head);
                assertThat(values.get(target)).isEqualTo(undoStack.remove(undoStack.size() - 1));
                values.add(values.get(target));
                points.add(point.afterUndo(points.get(target)));
            } else if (what == 1 && !redoStack.isEmpty()) {
                int target = (int) point.redoTarget().orElseThrow() - 1;
                undoStack.add(head);
                assertThat(values.get(target)).isEqualTo(redoStack.remove(redoStack.size() - 1));
                values.add(values.get(target));
                points.add(point.afterRedo(points.get(target)));
            } else {
                Optional<Timeline> next = edited(head, random, step);
                if (next.isPresent()) {
                    undoStack.add(head);
                    redoStack.clear();
                    values.add(next.get());
                    points.add(point.afterEdit());
                }
            }
            HistoryPoint newest = points.get(points.size() - 1);
            assertThat(newest.seq()).isEqualTo(points.size());
            assertThat(newest.undoTarget().isPresent()).isEqualTo(!undoStack.isEmpty());
            assertThat(newest.redoTarget().isPresent()).isEqualTo(!redoStack.isEmpty());
        }
    }

    @Test
    void clip_ids_are_never_used_twice() {
        Timeline timeline = new LayTake(7, 10_000, 0, "Noor").applyTo(Timeline.empty());
        for (int i = 0; i < 5; i++) {
            timeline = new Remove(new Span(100 + i * 1000, 200 + i * 1000), timeline.trackIds()).applyTo(timeline);
        }
        List<Long> ids = timeline.tracks().get(0).clips().stream().map(Clip::id).toList();
        assertThat(ids).hasSize(6).doesNotHaveDuplicates();
        assertThat(timeline.nextId()).isGreaterThan(ids.stream().mapToLong(Long::longValue).max().orElseThrow());
    }

    @Test
    void a_removal_that_cannot_apply_says_why() {
        Timeline timeline = new LayTake(7, 10_000, 0, "Noor").applyTo(Timeline.empty());
        long track = timeline.tracks().get(0).id();
        refuses(new Remove(new Span(0, 10), Set.of()), timeline, EditRefused.Reason.NO_TRACK_CHOSEN);
        refuses(new Remove(new Span(0, 10), Set.of(99L)), timeline, EditRefused.Reason.NO_SUCH_TRACK);
        refuses(new Remove(new Span(10_000, 10_010), Set.of(track)), timeline, EditRefused.Reason.SPAN_BEYOND_THE_END);
        assertThatThrownBy(() -> new Span(10, 10)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Span(-1, 10)).isInstanceOf(IllegalArgumentException.class);
    }

    private static void refuses(Edit edit, Timeline timeline, EditRefused.Reason reason) {
        assertThatThrownBy(() -> edit.applyTo(timeline))
                .isInstanceOfSatisfying(EditRefused.class, e -> assertThat(e.reason()).isEqualTo(reason));
    }

    private static Optional<Timeline> edited(Timeline head, Random random, int step) {
        if (head.endFrame() == 0 || random.nextInt(3) == 0) {
            return Optional.of(new LayTake(step + 1, 5000 + random.nextInt(5000), 0,
                    "Voice " + random.nextInt(3)).applyTo(head));
        }
        Remove remove = Timelines.removal(head, random);
        return soundFrom(head, remove) ? Optional.of(remove.applyTo(head)) : Optional.empty();
    }

    /** Whether there is sound in the span or behind it on a chosen track, so that removing changes something. */
    private static boolean soundFrom(Timeline timeline, Remove remove) {
        return remove.trackIds().stream().map(id -> timeline.track(id).orElseThrow())
                .anyMatch(track -> track.endFrame() > remove.span().startFrame());
    }

    private static List<Heard> heardAt(Track track, long frame) {
        return track.clips().stream().filter(clip -> clip.startFrame() <= frame && frame < clip.endFrame())
                .map(clip -> new Heard(clip.takeId(), clip.takeFrame() + frame - clip.startFrame(), clip.gainDb()))
                .toList();
    }
}

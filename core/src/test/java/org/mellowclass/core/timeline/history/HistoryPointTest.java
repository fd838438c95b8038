package org.mellowclass.core.timeline.history;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.LayTake;

class HistoryPointTest {

    static IntStream seeds() {
        return IntStream.range(0, 300);
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

    private static Optional<Timeline> edited(Timeline head, Random random, int step) {
        if (head.endFrame() == 0 || random.nextInt(3) == 0) {
            return Optional.of(new LayTake(step + 1, 5000 + random.nextInt(5000), 0,
                    "Voice " + random.nextInt(3)).applyTo(head, TAKES).timeline());
        }
        try {
            return Optional.of(Timelines.edit(head, random).applyTo(head, TAKES).timeline());
        } catch (EditRefused refused) {
            return Optional.empty();
        }
    }
}

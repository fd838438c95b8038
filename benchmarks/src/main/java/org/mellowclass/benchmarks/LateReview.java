package org.mellowclass.benchmarks;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;

import org.mellowclass.core.review.Changes;
import org.mellowclass.core.review.NoteAnchor;
import org.mellowclass.core.review.SharedSound;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.timeline.edit.TakeFacts;

/** A teacher's second look at an episode of an hour and 500 clips, after 2,000 edits: where 200 notes stand now, and what changed. */
final class LateReview {

    private static final long HOUR = Frames.ofSeconds(3600);
    private static final int CLIPS = 500;
    private static final int EDITS = 2000;
    private static final int NOTES = 200;
    private static final int ROUNDS = 31;
    private static final double MOST_MS_OF_NOTES = 50;
    private static final double MOST_MS_OF_CHANGES = 100;
    private static final TakeFacts TAKES = new TakeFacts() {
        @Override
        public OptionalLong frames(long takeId) {
            return OptionalLong.of(HOUR);
        }

        @Override
        public Optional<Span> room(long takeId) {
            return Optional.empty();
        }
    };

    List<Row> run() {
        Timeline was = Timeline.empty();
        was = after(was, new LayTake(1, HOUR, 0, "Noor"));
        was = after(was, new LayTake(2, HOUR, 0, "Music"));
        for (int i = 1; i < CLIPS / 2; i++) {
            was = after(was, new Split(HOUR / (CLIPS / 2) * i, was.trackIds()));
        }
        Random random = new Random(7);
        List<NoteAnchor> notes = new ArrayList<>();
        for (int i = 0; i < NOTES; i++) {
            long at = random.nextLong(HOUR - Frames.ofSeconds(10));
            notes.add(NoteAnchor.of(was, new Span(at, at + Frames.ofSeconds(3))));
        }
        Timeline is = was;
        for (int i = 0; i < EDITS; i++) {
            long at = random.nextLong(is.endFrame() - Frames.ofSeconds(1));
            Span span = new Span(at, at + Frames.ofMillis(200));
            is = after(is, i % 4 == 0 ? new Soften(span, is.trackIds()) : new Remove(span, is.trackIds()));
        }
        Timeline before = was;
        Timeline now = is;
        return List.of(row("where " + NOTES + " notes stand after " + EDITS + " edits, 60 min and " + CLIPS + " clips", () -> notes.forEach(note -> note.places(now)), MOST_MS_OF_NOTES),
                row("what changed by " + EDITS + " edits, 60 min and " + CLIPS + " clips", () -> Changes.between(before, now), MOST_MS_OF_CHANGES),
                row("how much of it sounds anew", () -> SharedSound.of(before, now), MOST_MS_OF_CHANGES));
    }

    private static Timeline after(Timeline timeline, Edit edit) {
        try {
            return edit.applyTo(timeline, TAKES).timeline();
        } catch (EditRefused needless) {
            return timeline;
        }
    }

    /** The median of some rounds. */
    private static Row row(String work, Runnable asked, double mostMs) {
        double[] times = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            long start = System.nanoTime();
            asked.run();
            times[i] = (System.nanoTime() - start) / 1e6;
        }
        Arrays.sort(times);
        double median = times[ROUNDS / 2];
        System.out.printf(Locale.ROOT, "%s: median %.1f ms%n", work, median);
        return new Row(work, String.format(Locale.ROOT, "median %.1f ms", median), "", String.format(Locale.ROOT, "%.1f ms", median), median, mostMs);
    }
}

package org.mellowclass.core.review;

import java.util.ArrayList;
import java.util.List;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;

/**
 * Which of a hand-in's sound somebody has heard: what was played of it, and what sounded the same in an earlier hand-in that was heard.
 *
 * @param heard in order
 * @param left  sound that was not heard, in order
 */
public record ListeningMap(List<Span> heard, List<Span> left) {

    /** Faster than this, nobody hears what is said. */
    public static final int MOST_SPEED = 2;
    /** Seams of playing and stopping are no sound that was missed. */
    private static final long SEAM = Frames.ofMillis(500);

    /** A hand-in, and what was played of it. */
    public record Played(Timeline timeline, List<Span> spans) {
    }

    /** @param handIns from the first to the one that is asked about */
    public static ListeningMap of(List<Played> handIns) {
        List<Span> heard = List.of();
        for (int i = 0; i < handIns.size(); i++) {
            List<Span> now = new ArrayList<>(handIns.get(i).spans());
            if (!heard.isEmpty()) {
                now.addAll(SharedSound.of(handIns.get(i - 1).timeline(), handIns.get(i).timeline()).carried(heard));
            }
            heard = Span.joined(now, 0);
        }
        Timeline last = handIns.get(handIns.size() - 1).timeline();
        List<Span> left = Span.without(SharedSound.sounding(last), Span.joined(heard, SEAM));
        return new ListeningMap(heard, left.stream().filter(span -> span.frames() > SEAM).toList());
    }

    /** Whether so much can have been heard in a time: twice as fast as it was said, and a moment that was played before. */
    public static boolean possible(long frames, long elapsedMs) {
        return frames <= MOST_SPEED * Frames.ofMillis(elapsedMs) + SEAM;
    }

    public boolean whole() {
        return left.isEmpty();
    }
}

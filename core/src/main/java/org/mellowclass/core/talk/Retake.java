package org.mellowclass.core.talk;

import java.util.List;
import java.util.Optional;

import org.mellowclass.core.measure.Pauses;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;

/** What of a retake is laid in the place of a passage, so that its first word stands where the passage's first word stood. */
public final class Retake {

    private Retake() {
    }

    /**
     * The words of a take with as much silence before and behind them as the passage has, as far as the take has it; never less than a
     * breath and a soft consonant need. All of a take that is not measured, or in which nobody speaks.
     *
     * @param takeFrames how long the take is
     */
    public static Span of(Timeline timeline, long trackId, Span passage, long takeId, long takeFrames, TalkFacts facts) {
        Optional<Span> words = facts.of(takeId).filter(TalkFacts.Measured::voice).map(measured -> words(measured.pauses(), takeFrames));
        if (words.isEmpty()) {
            return new Span(0, takeFrames);
        }
        List<Span> spoken = Talk.of(timeline, facts).speech().getOrDefault(trackId, List.of()).stream()
                .filter(span -> span.startFrame() < passage.endFrame() && span.endFrame() > passage.startFrame()).toList();
        long before = spoken.isEmpty() ? 0 : Math.max(0, spoken.get(0).startFrame() - passage.startFrame());
        long behind = spoken.isEmpty() ? 0 : Math.max(0, passage.endFrame() - spoken.get(spoken.size() - 1).endFrame());
        return new Span(Math.max(0, words.get().startFrame() - Math.max(before, Pauses.KEEP_BEFORE_SPEECH)),
                Math.min(takeFrames, words.get().endFrame() + Math.max(behind, Pauses.KEEP_AFTER_SPEECH)));
    }

    /** From the first word to the last. */
    private static Span words(List<Span> pauses, long takeFrames) {
        long start = pauses.stream().filter(pause -> pause.startFrame() == 0).mapToLong(Span::endFrame).findFirst().orElse(0);
        long end = pauses.stream().filter(pause -> pause.endFrame() >= takeFrames).mapToLong(Span::startFrame).findFirst().orElse(takeFrames);
        return start < end ? new Span(start, end) : new Span(0, takeFrames);
    }
}

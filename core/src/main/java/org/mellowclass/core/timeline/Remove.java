package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

import org.mellowclass.core.sound.Span;

/**
 * Takes a span out of the chosen tracks and closes the gap on them. A span may lie across several clips; every new edge
 * gets a fade of 5 ms inside the kept sound.
 */
public record Remove(Span span, Set<Long> trackIds) implements Edit {

    public Remove {
        trackIds = Set.copyOf(trackIds);
    }

    @Override
    public Timeline applyTo(Timeline timeline) {
        if (trackIds.isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NO_TRACK_CHOSEN);
        }
        if (!timeline.trackIds().containsAll(trackIds)) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_TRACK);
        }
        if (span.startFrame() >= timeline.endFrame()) {
            throw new EditRefused(EditRefused.Reason.SPAN_BEYOND_THE_END);
        }
        Ids ids = new Ids(timeline.nextId());
        List<Track> tracks = timeline.tracks().stream()
                .map(track -> trackIds.contains(track.id()) ? without(track, ids) : track).toList();
        if (tracks.equals(timeline.tracks())) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        return new Timeline(tracks, ids.next);
    }

    private Track without(Track track, Ids ids) {
        List<Clip> kept = new ArrayList<>();
        for (Clip clip : track.clips()) {
            if (clip.endFrame() <= span.startFrame()) {
                kept.add(clip);
            } else if (clip.startFrame() >= span.endFrame()) {
                kept.add(clip.movedBy(-span.frames()));
            } else {
                if (clip.startFrame() < span.startFrame()) {
                    kept.add(clip.before(span.startFrame()));
                }
                if (clip.endFrame() > span.endFrame()) {
                    kept.add(clip.after(span.endFrame(), ids.next++).movedBy(-span.frames()));
                }
            }
        }
        return track.withClips(kept);
    }

    private static final class Ids {
        private long next;

        Ids(long next) {
            this.next = next;
        }
    }
}

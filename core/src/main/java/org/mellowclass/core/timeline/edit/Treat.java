package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Lets every clip of a take play another one that was made of it. They stay where they are; if the new take's clock was
 * corrected, each starts at the moment of it that it started at before, and its place moves by what the clock was wrong until
 * then.
 *
 * @param driftPpm how much longer the new take is, in millionths; 0 if they are in step
 */
public record ReplaceTake(long oldTakeId, long newTakeId, double driftPpm) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        if (clips(timeline).isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_CLIP);
        }
        return Edited.inPlace(timeline.mapTracks(track -> track.withClips(replaced(track.clips())), timeline.nextId()));
    }

    private List<Clip> replaced(List<Clip> clips) {
        List<Clip> result = new ArrayList<>();
        for (Clip clip : clips) {
            if (clip.source().takeId() != oldTakeId) {
                result.add(clip);
                continue;
            }
            long source = moment(clip.sourceFrame());
            long start = Math.max(0, clip.startFrame() + source - clip.sourceFrame());
            long end = start + moment(clip.sourceFrame() + clip.frames()) - source;
            // a neighbour that did not overlap does not overlap now
            long limit = clips.stream().filter(other -> other.source().takeId() != oldTakeId).mapToLong(Clip::startFrame)
                    .filter(other -> other >= clip.endFrame()).min().orElse(Long.MAX_VALUE);
            result.add(new Clip(clip.id(), clip.source().of(newTakeId), start, source, Math.min(end, limit) - start, clip.gainDb(),
                    clip.fadeIn(), clip.fadeOut()));
        }
        return result;
    }

    /** Rounded down, so that it never lies behind the end of the new take. */
    private long moment(long frame) {
        return (long) (frame * (1 + driftPpm / 1e6));
    }

    private Set<Long> clips(Timeline timeline) {
        return timeline.tracks().stream().flatMap(track -> track.clips().stream())
                .filter(clip -> clip.source().takeId() == oldTakeId).map(Clip::id).collect(Collectors.toSet());
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return Footprint.ofClips(clips(timeline));
    }

    @Override
    public ReplaceTake shiftedBy(long frames) {
        return this;
    }
}

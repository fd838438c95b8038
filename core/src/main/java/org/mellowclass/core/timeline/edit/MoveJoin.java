package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Moves the join between two clips that adjoin or are crossfaded: one ends later and the other starts later, or both earlier,
 * and no sound moves.
 *
 * @param clipId   the earlier of the two
 * @param byFrames how much later the join shall be; negative for earlier
 */
public record MoveJoin(long clipId, long byFrames) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track track = timeline.trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Clip first = track.clip(clipId).orElseThrow();
        Clip second = next(track, first).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_JOIN, Set.of(clipId)));
        if (byFrames == 0) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        long overlap = first.endFrame() - second.startFrame();
        long end = first.frames() + byFrames;
        long left = second.frames() - byFrames;
        if (end < first.fadeIn().reach() + overlap + Trim.SHORTEST_FRAMES || left < second.fadeOut().reach() + overlap + Trim.SHORTEST_FRAMES) {
            throw new EditRefused(EditRefused.Reason.TOO_SHORT, Set.of(first.id(), second.id()));
        }
        boolean reaches = first.source() instanceof RoomSource
                || first.sourceFrame() + end + first.fadeOut().overFrames() <= first.source().treatment().frames(takes.frames(first.source().takeId()).orElse(0));
        if (!reaches || second.sourceFrame() + byFrames < second.fadeIn().overFrames()) {
            throw new EditRefused(EditRefused.Reason.BEYOND_THE_TAKE, Set.of(first.id(), second.id()));
        }
        Clip longer = new Clip(first.id(), first.source(), first.startFrame(), first.sourceFrame(), end, first.gainDb(), first.fadeIn(), first.fadeOut());
        Clip later = new Clip(second.id(), second.source(), second.startFrame() + byFrames, second.sourceFrame() + byFrames, left, second.gainDb(),
                second.fadeIn(), second.fadeOut());
        return Edited.inPlace(timeline.mapTracks(it -> it.id() == track.id()
                ? it.mapClips(clip -> clip.id() == first.id() ? longer : clip.id() == second.id() ? later : clip) : it, timeline.nextId()));
    }

    private static Optional<Clip> next(Track track, Clip first) {
        return track.clips().stream().filter(other -> other.startFrame() > first.startFrame() && other.startFrame() <= first.endFrame()
                && other.endFrame() > first.endFrame()).findFirst();
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Footprint touched = Footprint.ofClip(timeline, clipId);
        return timeline.trackOf(clipId).flatMap(track -> next(track, track.clip(clipId).orElseThrow()))
                .map(second -> touched.and(Footprint.ofClip(timeline, second.id()))).orElse(touched);
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Track track = meanwhile.base().trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Clip second = next(track, track.clip(clipId).orElseThrow()).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_JOIN, Set.of(clipId)));
        meanwhile.requireThere(Set.of(clipId, second.id()));
        return Optional.of(this);
    }
}

package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Moves a clip to another place, on its own track or another one. Where it then lies over a neighbour's edge, the two get a
 * crossfade as long as their overlap: with equal gain where both play the same take in step, else with equal power. It
 * cannot be moved onto the middle of another clip, nor over a whole one.
 */
public record Move(long clipId, long trackId, long startFrame) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        Track from = timeline.trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        if (timeline.track(trackId).isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_TRACK);
        }
        Clip clip = from.clip(clipId).orElseThrow();
        if (from.id() == trackId && clip.startFrame() == startFrame) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        Clip alone = Crossfades.undone(clip, from);
        Clip moved = alone.movedBy(Math.max(0, startFrame) - clip.startFrame());
        return Edited.inPlace(timeline.mapTracks(track -> {
            Track without = track.id() == from.id() ? Crossfades.without(track, clip) : track;
            return track.id() == trackId ? Crossfades.with(without, moved) : without;
        }, timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        Set<Long> clips = new HashSet<>(Set.of(clipId));
        List<Footprint.Space> space = new ArrayList<>();
        timeline.trackOf(clipId).ifPresent(from -> {
            Clip clip = from.clip(clipId).orElseThrow();
            from.clips().stream().filter(clip::overlaps).map(Clip::id).forEach(clips::add);
            Clip moved = clip.movedBy(Math.max(0, startFrame) - clip.startFrame());
            timeline.track(trackId).ifPresent(to ->
                    to.clips().stream().filter(moved::overlaps).map(Clip::id).forEach(clips::add));
            space.add(new Footprint.Space(trackId, moved.startFrame(), moved.endFrame()));
        });
        return Footprint.of(clips, Set.copyOf(space));
    }

    @Override
    public Move shiftedBy(long frames) {
        return new Move(clipId, trackId, startFrame + frames);
    }
}

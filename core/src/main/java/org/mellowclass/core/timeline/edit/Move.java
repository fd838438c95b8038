package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Moves a clip to another place, on its own track or another one. Where it then lies over a neighbour's edge, the two get a
 * crossfade as long as their overlap: with equal gain where both play the same take in step, else with equal power. It
 * cannot be moved onto the middle of another clip, nor over a whole one.
 */
public record Move(long clipId, long trackId, long startFrame) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
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
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return timeline.trackOf(clipId).map(from -> {
            Clip clip = from.clip(clipId).orElseThrow();
            return Footprint.ofStretch(from.id(), clip.span()).and(Footprint.ofStretch(trackId, wanted(clip)));
        }).orElse(Footprint.NOTHING);
    }

    /** Where it shall stand. */
    private Span wanted(Clip clip) {
        return clip.movedBy(Math.max(0, startFrame) - clip.startFrame()).span();
    }

    /** Its new place moves with the track that it goes to. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Clip was = meanwhile.base().clip(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        if (meanwhile.same(clipId).isEmpty()) {
            return Optional.empty();
        }
        meanwhile.requireSame(trackId, wanted(was), Set.of(clipId));
        return Optional.of(new Move(clipId, trackId, meanwhile.map(trackId).closest(Math.max(0, startFrame))));
    }
}

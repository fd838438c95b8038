package org.mellowclass.core.timeline.edit;

import java.util.Optional;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Takes one clip off its track; nothing else moves. */
public record RemoveClip(long clipId) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track of = timeline.trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        return Edited.inPlace(timeline.mapTracks(track -> track.id() == of.id() ? Crossfades.without(track, of.clip(clipId).orElseThrow()) : track,
                timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofClip(timeline, clipId);
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        return meanwhile.same(clipId).map(same -> this);
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.Optional;

import org.mellowclass.core.timeline.Timeline;

/** Takes every clip of a take off the page, its room too. Nothing else moves. */
public record EraseTake(long takeId) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        if (timeline.clipsOf(takeId).isEmpty()) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(timeline.mapTracks(track -> track.withClips(
                track.clips().stream().filter(clip -> clip.source().takeId() != takeId).toList()), timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofClipsOf(timeline, takeId);
    }

    /** Whatever happened meanwhile, it goes. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        return meanwhile.head().clipsOf(takeId).isEmpty() ? Optional.empty() : Optional.of(this);
    }
}

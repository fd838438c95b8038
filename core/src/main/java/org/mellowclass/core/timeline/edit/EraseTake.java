package org.mellowclass.core.timeline;

import java.util.Set;
import java.util.stream.Collectors;

/** Takes every clip of a take off the page, its room too. Nothing else moves. */
public record EraseTake(long takeId) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        if (clips(timeline).isEmpty()) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(timeline.mapTracks(track -> track.withClips(
                track.clips().stream().filter(clip -> clip.source().takeId() != takeId).toList()), timeline.nextId()));
    }

    private Set<Long> clips(Timeline timeline) {
        return timeline.tracks().stream().flatMap(track -> track.clips().stream())
                .filter(clip -> clip.source().takeId() == takeId).map(Clip::id).collect(Collectors.toSet());
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return Footprint.ofClips(clips(timeline));
    }

    @Override
    public EraseTake shiftedBy(long frames) {
        return this;
    }
}

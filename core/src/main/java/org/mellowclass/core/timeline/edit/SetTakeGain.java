package org.mellowclass.core.timeline;

import java.util.Set;
import java.util.stream.Collectors;

/** Gives every clip of a take the same gain. */
public record SetTakeGain(long takeId, double gainDb) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        Gains.check(gainDb);
        if (timeline.tracks().stream().flatMap(track -> track.clips().stream()).filter(this::ofTake).allMatch(clip -> clip.gainDb() == gainDb)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(timeline.mapTracks(track -> track.withClips(track.clips().stream()
                .map(clip -> ofTake(clip) ? clip.withGain(gainDb) : clip).toList()), timeline.nextId()));
    }

    private boolean ofTake(Clip clip) {
        return clip.source().takeId() == takeId;
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        Set<Long> clips = timeline.tracks().stream().flatMap(track -> track.clips().stream()).filter(this::ofTake).map(Clip::id)
                .collect(Collectors.toSet());
        return Footprint.ofClips(clips);
    }

    @Override
    public SetTakeGain shiftedBy(long frames) {
        return this;
    }
}

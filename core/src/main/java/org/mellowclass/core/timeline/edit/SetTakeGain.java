package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;

/** Gives every clip of a take the same gain. */
public record SetTakeGain(long takeId, double gainDb) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Gains.check(gainDb);
        if (timeline.clipsOf(takeId).stream().allMatch(clip -> clip.gainDb() == gainDb)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(timeline.mapTracks(track -> track.withClips(track.clips().stream()
                .map(clip -> ofTake(clip) ? clip.withGain(gainDb) : clip).toList()), timeline.nextId()));
    }

    private boolean ofTake(Clip clip) {
        return clip.source().takeId() == takeId;
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofClipsOf(timeline, takeId);
    }

    /** What was cut out or moved meanwhile is no matter, but another gain is. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Set<Double> was = gains(meanwhile.base());
        Set<Long> differing = meanwhile.head().clipsOf(takeId).stream().filter(clip -> !was.contains(clip.gainDb())).map(Clip::id)
                .collect(Collectors.toSet());
        if (!differing.isEmpty() && !gains(meanwhile.head()).equals(Set.of(gainDb))) {
            throw Meanwhile.changed(differing);
        }
        return meanwhile.head().clipsOf(takeId).isEmpty() ? Optional.empty() : Optional.of(this);
    }

    private Set<Double> gains(Timeline timeline) {
        return timeline.clipsOf(takeId).stream().map(Clip::gainDb).collect(Collectors.toSet());
    }
}

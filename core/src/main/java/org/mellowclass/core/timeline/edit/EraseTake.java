package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Timeline;

/** Takes every clip of a take off the page, its room too, and the flags that stand on them. Nothing else moves. */
public record EraseTake(long takeId) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        if (timeline.clipsOf(takeId).isEmpty()) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        Set<Long> going = flags(timeline);
        return Edited.inPlace(timeline.mapTracks(track -> track.withClips(
                track.clips().stream().filter(clip -> clip.source().takeId() != takeId).toList()), timeline.nextId())
                .withFlags(timeline.flags().stream().filter(flag -> !going.contains(flag.id())).toList(), timeline.nextId()));
    }

    private Set<Long> flags(Timeline timeline) {
        return timeline.flags().stream().filter(flag -> timeline.track(flag.trackId()).stream().flatMap(track -> track.clips().stream())
                        .anyMatch(clip -> clip.source().takeId() == takeId && clip.startFrame() <= flag.frame() && flag.frame() < clip.endFrame()))
                .map(Flag::id).collect(Collectors.toSet());
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofClipsOf(timeline, takeId).and(Footprint.ofFlags(flags(timeline)));
    }

    /** Whatever happened meanwhile, it goes. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        return meanwhile.head().clipsOf(takeId).isEmpty() ? Optional.empty() : Optional.of(this);
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Puts another take in the place of one: all clips of the old take go, and the new one starts where the first of them did,
 * on its track, or beside it where it does not fit. Nothing else moves.
 *
 * @param span the stretch of the new take, in its frames
 */
public record SwapTake(long oldTakeId, long newTakeId, Span span) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track track = timeline.tracks().stream().filter(it -> it.clips().stream().anyMatch(this::old)).findFirst()
                .orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Clip first = track.clips().stream().filter(this::old).findFirst().orElseThrow();
        Timeline without = timeline.mapTracks(it -> it.withClips(it.clips().stream().filter(clip -> !old(clip)).toList()),
                timeline.nextId());
        return new LaySpan(newTakeId, span, track.name(), first.startFrame(), first.gainDb()).applyTo(without, takes);
    }

    private boolean old(Clip clip) {
        return clip.source() instanceof TakeSource && clip.source().takeId() == oldTakeId;
    }

    /** Also the time before it: the new take may land beside the track, where the old one has gone. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Footprint touched = Footprint.between(timeline, applyTo(timeline, takes).timeline()).and(Footprint.ofTakes(Set.of(oldTakeId, newTakeId)));
        for (Track track : timeline.tracks()) {
            if (track.clips().stream().anyMatch(this::old)) {
                touched = touched.and(Footprint.ofStretch(track.id(), new Span(0, track.endFrame())));
            }
        }
        return touched;
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Set<Long> going = meanwhile.base().clipsOf(oldTakeId).stream().filter(this::old).map(Clip::id).collect(Collectors.toSet());
        meanwhile.requireThere(going);
        meanwhile.requireSameWhereDifferent(applyTo(meanwhile.base(), meanwhile.takes()).timeline(), going);
        return Optional.of(this);
    }
}

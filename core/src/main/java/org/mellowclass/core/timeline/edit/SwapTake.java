package org.mellowclass.core.timeline;

import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;

/**
 * Puts another take in the place of one: all clips of the old take go, and the new one starts where the first of them did,
 * on its track, or beside it where it does not fit. Nothing else moves.
 *
 * @param span the stretch of the new take, in its frames
 */
public record SwapTake(long oldTakeId, long newTakeId, Span span) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        Track track = timeline.tracks().stream().filter(it -> it.clips().stream().anyMatch(this::old)).findFirst()
                .orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Clip first = track.clips().stream().filter(this::old).findFirst().orElseThrow();
        Timeline without = timeline.mapTracks(it -> it.withClips(it.clips().stream().filter(clip -> !old(clip)).toList()),
                timeline.nextId());
        return new LaySpan(newTakeId, span, track.name(), first.startFrame(), first.gainDb()).applyTo(without);
    }

    private boolean old(Clip clip) {
        return clip.source() instanceof TakeSource && clip.source().takeId() == oldTakeId;
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        Set<Long> clips = timeline.tracks().stream().flatMap(track -> track.clips().stream()).filter(this::old).map(Clip::id)
                .collect(Collectors.toSet());
        return Footprint.ofClips(clips);
    }

    @Override
    public SwapTake shiftedBy(long frames) {
        return this;
    }
}

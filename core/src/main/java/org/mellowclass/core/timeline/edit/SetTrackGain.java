package org.mellowclass.core.timeline;

import java.util.Set;

/** Sets the gain of a whole track, in dB. */
public record SetTrackGain(long trackId, double gainDb) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        Track track = timeline.track(trackId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        Gains.check(gainDb, track.gainDb());
        return Edited.inPlace(timeline.mapTracks(
                old -> old.id() == trackId ? old.withGain(gainDb) : old, timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return new Footprint(Set.of(), Set.of(trackId), Set.of(), Set.of());
    }

    @Override
    public SetTrackGain shiftedBy(long frames) {
        return this;
    }
}

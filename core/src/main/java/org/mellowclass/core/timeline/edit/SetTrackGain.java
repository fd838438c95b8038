package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Sets the gain of a whole track, in dB. */
public record SetTrackGain(long trackId, double gainDb) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track track = timeline.track(trackId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        Gains.check(gainDb, track.gainDb());
        return Edited.inPlace(timeline.mapTracks(
                old -> old.id() == trackId ? old.withGain(gainDb) : old, timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofTracks(Set.of(trackId));
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Track was = meanwhile.base().track(trackId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        Optional<Track> now = meanwhile.head().track(trackId);
        if (now.isEmpty() || now.get().gainDb() == gainDb) {
            return Optional.empty();
        }
        if (!now.get().sameSettings(was)) {
            throw Meanwhile.changed(Set.of());
        }
        return Optional.of(this);
    }
}

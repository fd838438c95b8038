package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;

/** Gives a track another volume curve. */
public record DrawCurve(long trackId, VolumeCurve curve) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track track = timeline.track(trackId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        if (track.curve().equals(curve)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(timeline.mapTracks(it -> it.id() == trackId ? it.withCurve(curve) : it, timeline.nextId()));
    }

    /** All of the track's time, since whatever moves it moves the curve. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofWholeTrack(trackId);
    }

    /** It moves with its track; a curve that somebody else has drawn meanwhile is not drawn over. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Track was = meanwhile.base().track(trackId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        Optional<Track> now = meanwhile.head().track(trackId);
        if (now.isEmpty()) {
            return Optional.empty();
        }
        VolumeCurve moved = curve.moved(meanwhile.map(trackId));
        if (now.get().curve().equals(moved)) {
            return Optional.empty();
        }
        if (!now.get().curve().equals(was.curve().moved(meanwhile.map(trackId)))) {
            throw Meanwhile.changed(Set.of());
        }
        return Optional.of(new DrawCurve(trackId, moved));
    }
}

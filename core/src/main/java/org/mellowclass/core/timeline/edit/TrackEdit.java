package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** An edit that sets something of a whole track. */
public sealed interface TrackEdit extends Edit permits SetTrackGain, PanTrack, MuteTrack, NameTrack, TieTrack {

    long trackId();

    /**
     * The track with it set.
     *
     * @throws EditRefused if it cannot be
     */
    Track set(Track track, Timeline timeline);

    @Override
    default Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track track = timeline.track(trackId()).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        Track now = set(track, timeline);
        if (now.equals(track)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(timeline.mapTracks(old -> old.id() == trackId() ? now : old, timeline.nextId()));
    }

    @Override
    default Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofTracks(Set.of(trackId()));
    }

    @Override
    default Optional<Edit> rebased(Meanwhile meanwhile) {
        Track was = meanwhile.base().track(trackId()).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        Optional<Track> now = meanwhile.head().track(trackId());
        if (now.isEmpty() || set(now.get(), meanwhile.head()).equals(now.get())) {
            return Optional.empty();
        }
        if (!now.get().sameSettings(was)) {
            throw Meanwhile.changed(Set.of());
        }
        return Optional.of(this);
    }
}

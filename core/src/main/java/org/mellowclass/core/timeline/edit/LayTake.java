package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Lays a whole take as a new clip behind everything on a track: on the track with that id, or, where {@code trackId} is 0,
 * on the one with that name, or on a new one of that name. Nothing is ever laid over anything.
 *
 * @param frames how long the take is, at 48 kHz
 */
public record LayTake(long takeId, long frames, long trackId, String trackName) implements Edit {

    /** All voice and music tracks start tied to each other. */
    static final int FIRST_GROUP = 1;
    /** Longer than any timeline. */
    private static final long BEHIND_ALL = 1L << 40;

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        return Edited.inPlace(laid(timeline));
    }

    /** Everything behind what is on its track. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Optional<Track> onto = trackId != 0 ? timeline.track(trackId) : timeline.trackNamed(trackName);
        return Footprint.ofTakes(Set.of(takeId)).and(onto.map(track -> Footprint.ofStretch(track.id(), new Span(track.endFrame(), track.endFrame() + BEHIND_ALL)))
                .orElse(Footprint.ofNewTrack(trackName)));
    }

    /** Behind everything is behind everything. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        return Optional.of(this);
    }

    private Timeline laid(Timeline timeline) {
        if (trackId != 0) {
            Track track = timeline.track(trackId)
                    .orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
            return append(timeline, track);
        }
        if (trackName == null || trackName.isBlank()) {
            throw new EditRefused(EditRefused.Reason.NAME_MISSING);
        }
        return timeline.trackNamed(trackName)
                .map(track -> append(timeline, track))
                .orElseGet(() -> append(withTrack(timeline), newTrack(timeline)));
    }

    private Track newTrack(Timeline timeline) {
        return new Track(timeline.nextId(), trackName, FIRST_GROUP, 0, false, List.of());
    }

    private Timeline withTrack(Timeline timeline) {
        List<Track> tracks = new ArrayList<>(timeline.tracks());
        tracks.add(newTrack(timeline));
        return new Timeline(tracks, timeline.flags(), timeline.nextId() + 1);
    }

    private Timeline append(Timeline timeline, Track onto) {
        Clip clip = new Clip(timeline.nextId(), new TakeSource(takeId), onto.endFrame(), 0, frames, 0, Fade.NONE, Fade.NONE);
        return timeline.mapTracks(track -> {
            if (track.id() != onto.id()) {
                return track;
            }
            List<Clip> clips = new ArrayList<>(track.clips());
            clips.add(clip);
            return track.withClips(clips);
        }, timeline.nextId() + 1);
    }
}

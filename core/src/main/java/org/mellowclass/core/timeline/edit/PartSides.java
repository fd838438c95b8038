package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.ChooseSides;

/**
 * Two speakers on the two sides of one take: each clip plays the left one where it stands, and another clip the right one at
 * the same time on a track of its own, which is made.
 *
 * @param rightTrackName what the other track is called; with a number behind it if there is one already
 */
public record PartSides(long takeId, String rightTrackName) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        if (rightTrackName == null || rightTrackName.isBlank()) {
            throw new EditRefused(EditRefused.Reason.NAME_MISSING);
        }
        List<Clip> clips = timeline.clipsOf(takeId);
        if (clips.isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_CLIP);
        }
        if (parted(timeline)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        long id = timeline.nextId();
        List<Track> tracks = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            tracks.add(track.mapClips(clip -> clip.source().takeId() == takeId ? on(clip, Sides.LEFT) : clip));
            List<Clip> others = new ArrayList<>();
            long trackId = id;
            for (Clip clip : track.clips()) {
                if (clip.source().takeId() == takeId) {
                    others.add(on(clip, Sides.RIGHT).withId(++id));
                }
            }
            if (!others.isEmpty()) {
                id++;
                tracks.add(new Track(trackId, freeName(timeline, tracks), track.group(), track.gainDb(), track.pan(), track.muted(), track.curve(), others));
            }
        }
        return Edited.inPlace(new Timeline(tracks, timeline.flags(), id));
    }

    private static Clip on(Clip clip, Sides side) {
        return clip.withSource(clip.source().treated(clip.source().treatment().with(new ChooseSides(side))));
    }

    private String freeName(Timeline timeline, List<Track> made) {
        String name = rightTrackName;
        for (int number = 2; taken(timeline.tracks(), name) || taken(made, name); number++) {
            name = rightTrackName + " " + number;
        }
        return name;
    }

    private static boolean taken(List<Track> tracks, String name) {
        return tracks.stream().anyMatch(track -> track.name().equals(name));
    }

    private boolean parted(Timeline timeline) {
        return timeline.clipsOf(takeId).stream().anyMatch(clip -> clip.source().treatment().step(ChooseSides.class).isPresent());
    }

    /** All of the tracks that play the take, since others are made of them. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Footprint touched = Footprint.ofTakes(Set.of(takeId)).and(Footprint.ofNewTrack(rightTrackName));
        for (Track track : timeline.tracks()) {
            if (track.clips().stream().anyMatch(clip -> clip.source().takeId() == takeId)) {
                touched = touched.and(Footprint.ofStretch(track.id(), new Span(0, track.endFrame()))).and(Footprint.ofTracks(Set.of(track.id())));
            }
        }
        return touched;
    }

    /** What was cut or moved meanwhile is cut and moved on both. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        boolean nothingLeft = meanwhile.head().clipsOf(takeId).isEmpty();
        if (!nothingLeft && parted(meanwhile.head())) {
            throw Meanwhile.changed(Set.copyOf(meanwhile.head().clipsOf(takeId).stream().map(Clip::id).toList()));
        }
        return nothingLeft ? Optional.empty() : Optional.of(this);
    }
}

package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

import org.mellowclass.core.sound.Span;

/**
 * Lays a stretch of a take as a new clip from a frame on, on a track of that name. Nothing is ever laid over anything: where
 * something stands there already, it goes to the first track that is free there and is called by the name and a number
 * (Noor 2), which is made if there is none.
 *
 * @param span   the stretch of the take, in its frames
 * @param gainDb the new clip's gain
 * @param flags  moments of the take that get a flag each, in its frames
 */
public record LaySpan(long takeId, Span span, String trackName, long startFrame, double gainDb, List<Long> flags) implements Edit {

    public LaySpan {
        flags = List.copyOf(flags);
    }

    public LaySpan(long takeId, Span span, String trackName, long startFrame, double gainDb) {
        this(takeId, span, trackName, startFrame, gainDb, List.of());
    }

    /** Behind everything on the track of that name. */
    public static LaySpan behind(Timeline timeline, long takeId, Span span, String trackName, List<Long> flags) {
        return new LaySpan(takeId, span, trackName, named(timeline, trackName).map(Track::endFrame).orElse(0L), 0, flags);
    }

    @Override
    public Edited applyTo(Timeline timeline) {
        if (trackName == null || trackName.isBlank()) {
            throw new EditRefused(EditRefused.Reason.NAME_MISSING);
        }
        Gains.check(gainDb);
        Timeline ready = timeline;
        Optional<Track> free = free(timeline);
        if (free.isEmpty()) {
            List<Track> tracks = new ArrayList<>(timeline.tracks());
            tracks.add(new Track(timeline.nextId(), landing(timeline), LayTake.FIRST_GROUP, 0, false, List.of()));
            ready = new Timeline(tracks, timeline.flags(), timeline.nextId() + 1);
        }
        Track onto = free(ready).orElseThrow();
        Fade in = span.startFrame() > 0 ? Fade.EDGE : Fade.NONE;
        // a stretch ends inside its take more often than not, and a fade at a take's very end is not heard
        Clip clip = new Clip(ready.nextId(), new TakeSource(takeId), Math.max(0, startFrame), span.startFrame(),
                span.frames(), gainDb, in, Fade.EDGE);
        return Edited.inPlace(flagged(onto, clip, ready.mapTracks(track -> {
            if (track.id() != onto.id()) {
                return track;
            }
            List<Clip> clips = new ArrayList<>(track.clips());
            clips.add(clip);
            return track.withClips(clips);
        }, ready.nextId() + 1)));
    }

    private Timeline flagged(Track onto, Clip clip, Timeline timeline) {
        List<Flag> all = new ArrayList<>(timeline.flags());
        long id = timeline.nextId();
        int number = 1;
        for (long frame : flags) {
            if (frame >= span.startFrame() && frame < span.endFrame()) {
                all.add(new Flag(id++, onto.id(), clip.startFrame() + frame - span.startFrame(), "flag " + number++));
            }
        }
        return timeline.withFlags(all, id);
    }

    /** The name of the track on which it lands. */
    public String landing(Timeline timeline) {
        return free(timeline).map(Track::name).orElseGet(() -> {
            String name = trackName;
            for (int number = 2; named(timeline, name).isPresent(); number++) {
                name = trackName + " " + number;
            }
            return name;
        });
    }

    private Optional<Track> free(Timeline timeline) {
        Span wanted = new Span(Math.max(0, startFrame), Math.max(0, startFrame) + span.frames());
        String name = trackName;
        for (int number = 2; ; number++) {
            Optional<Track> track = named(timeline, name);
            if (track.isEmpty() || track.get().clips().stream().noneMatch(clip -> clip.overlaps(wanted))) {
                return track;
            }
            name = trackName + " " + number;
        }
    }

    private static Optional<Track> named(Timeline timeline, String name) {
        return timeline.tracks().stream().filter(track -> track.name().equals(name)).findFirst();
    }

    /** Nothing that is there is touched. */
    @Override
    public Footprint footprint(Timeline timeline) {
        return Footprint.NOTHING;
    }

    @Override
    public LaySpan shiftedBy(long frames) {
        return new LaySpan(takeId, span, trackName, startFrame + frames, gainDb, flags);
    }
}

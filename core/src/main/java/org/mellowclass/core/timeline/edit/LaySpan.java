package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.TimeMap;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Lays a stretch of a take as a new clip from a frame on, on a track of that name. Nothing is ever laid over anything: where
 * something stands there already, it goes to the first track that is free there and is called by the name and a number
 * (Noor 2), which is made if there is none.
 *
 * @param source what the clip plays
 * @param span   the stretch of it, in its frames
 * @param gainDb the new clip's gain
 * @param flags  moments that get a flag each, in the source's frames
 */
public record LaySpan(TakeSource source, Span span, String trackName, long startFrame, double gainDb, List<Long> flags) implements Edit {

    private static final String NUMBERED = "flag ";

    public LaySpan {
        flags = List.copyOf(flags);
    }

    public LaySpan(long takeId, Span span, String trackName, long startFrame, double gainDb) {
        this(new TakeSource(takeId), span, trackName, startFrame, gainDb, List.of());
    }

    /** Behind everything on the track of that name. */
    public static LaySpan behind(Timeline timeline, long takeId, Span span, String trackName, List<Long> flags) {
        return new LaySpan(new TakeSource(takeId), span, trackName, timeline.trackNamed(trackName).map(Track::endFrame).orElse(0L), 0, flags);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
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
        Clip clip = new Clip(ready.nextId(), source, Math.max(0, startFrame), span.startFrame(),
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
        long number = lastNumber(timeline);
        for (long frame : flags) {
            if (frame >= span.startFrame() && frame < span.endFrame()) {
                all.add(new Flag(id++, onto.id(), clip.startFrame() + frame - span.startFrame(), NUMBERED + ++number));
            }
        }
        return timeline.withFlags(all, id);
    }

    /** Flags are numbered on through the episode. */
    private static long lastNumber(Timeline timeline) {
        return timeline.flags().stream().map(Flag::name).filter(name -> name.matches(NUMBERED + "\\d{1,9}"))
                .mapToLong(name -> Long.parseLong(name.substring(NUMBERED.length()))).max().orElse(0);
    }

    /** The name of the track on which it lands. */
    public String landing(Timeline timeline) {
        return free(timeline).map(Track::name).orElseGet(() -> {
            String name = trackName;
            for (int number = 2; timeline.trackNamed(name).isPresent(); number++) {
                name = trackName + " " + number;
            }
            return name;
        });
    }

    private Optional<Track> free(Timeline timeline) {
        Span wanted = wanted();
        String name = trackName;
        for (int number = 2; ; number++) {
            Optional<Track> track = timeline.trackNamed(name);
            if (track.isEmpty() || track.get().clips().stream().noneMatch(clip -> clip.overlaps(wanted))) {
                return track;
            }
            name = trackName + " " + number;
        }
    }

    /** The place it takes on the track where it lands, and on those where something stands in its way. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        String landing = landing(timeline);
        Footprint touched = Footprint.ofTakes(Set.of(source.takeId()));
        String name = trackName;
        for (int number = 2; !name.equals(landing); number++) {
            touched = touched.and(Footprint.ofStretch(timeline.trackNamed(name).orElseThrow().id(), wanted()));
            name = trackName + " " + number;
        }
        return touched.and(timeline.trackNamed(landing).map(track -> Footprint.ofStretch(track.id(), wanted())).orElse(Footprint.ofNewTrack(landing)));
    }

    private Span wanted() {
        return new Span(Math.max(0, startFrame), Math.max(0, startFrame) + span.frames());
    }

    /** It moves with the track on which it was to land. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        String landing = landing(meanwhile.base());
        TimeMap map = meanwhile.base().trackNamed(landing).map(track -> meanwhile.map(track.id())).orElse(meanwhile.mapOfNewTrack(LayTake.FIRST_GROUP));
        return Optional.of(new LaySpan(source, span, landing, map.closest(Math.max(0, startFrame)), gainDb, flags));
    }
}

package org.mellowclass.app.bench;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.Sound;
import org.mellowclass.app.sounds.TakeFindings;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.history.HistoryPoint;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Trick;
import org.springframework.stereotype.Component;

/** Timelines as pages draw them, for viewers who have been let through to the episode. */
@Component
public class BenchViews {

    private final Bench bench;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final Finishes finishes;

    BenchViews(Bench bench, TakeShelf takes, TakeSounds sounds, Finishes finishes) {
        this.bench = bench;
        this.takes = takes;
        this.sounds = sounds;
        this.finishes = finishes;
    }

    /** What the page knows of a take; its clipped spots are null until it is measured. */
    public record TakeView(String name, String trackName, long frames, boolean voice, List<ClippedSpot> clipped) {
    }

    /**
     * What a clip plays.
     *
     * @param soundId    under which its skyline is found; null as long as it is being made
     * @param roomFrame  where in the sound the room lies that is repeated; null for a take itself
     * @param drawnAnew  whether what was clipped in the take is not clipped any more
     * @param keepsTime  whether frames of the take stand at the same frames of the sound
     */
    public record SourceView(long takeId, Long soundId, Long roomFrame, Long roomFrames, boolean drawnAnew, boolean keepsTime, Trick.Kind trick) {
    }

    /** Names what it plays and its fades by their places in the timeline's lists: five hundred clips share a few of them. */
    public record ClipView(long id, int source, long startFrame, long sourceFrame, long frames, double gainDb, int fadeIn, int fadeOut) {
    }

    /** @param curve its points, which may be none */
    public record TrackView(long id, String name, int group, double gainDb, double pan, boolean muted, List<VolumeCurve.Point> curve, List<ClipView> clips) {
    }

    /**
     * A timeline as the page draws it.
     *
     * @param sources what clips play
     * @param fades   what they begin and end with
     * @param finish what its sound plays through, by name
     * @param finishOf the revision that it was measured of; 0 if none was
     * @param since the revision from which {@code maps} lead here; 0 if nobody asked
     * @param maps  where the time of tracks has gone, see {@link StoredMaps}; a track that is missing has kept its time
     */
    public record TimelineView(long revision, boolean canUndo, boolean canRedo, long frames, List<TrackView> tracks, List<SourceView> sources, List<Fade> fades,
                               List<Flag> flags, Map<Long, TakeView> takes, String finish, long finishOf, long since, Map<Long, List<long[]>> maps) {
    }

    /** A revision that nobody changes any more. */
    public TimelineView frozen(long episodeId, long revision, Timeline timeline) {
        return view(episodeId, new Head(new HistoryPoint(revision, 0, 0), "", timeline), 0, TimeMaps.NONE);
    }

    /** With the way that times have gone since the revision that the page shows; 0 for a page that shows none. */
    public TimelineView view(Person viewer, long episodeId, Head head, long since) {
        return view(episodeId, head, since, since == 0 ? TimeMaps.NONE : bench.maps(viewer, episodeId, since, head.seq()));
    }

    private TimelineView view(long episodeId, Head head, long since, TimeMaps maps) {
        Map<Long, TakeView> views = new TreeMap<>();
        Map<Long, TakeFindings> findings = sounds.findingsOf(episodeId);
        for (Take take : takes.ready(episodeId).values()) {
            TakeFindings found = findings.get(take.id());
            views.put(take.id(), new TakeView(take.name(), take.trackName(), take.frames(), take.origin() != Take.Origin.SHELF, found == null ? null : found.clipped()));
        }
        Map<TakeSource, Long> made = new HashMap<>();
        for (Sound sound : sounds.ofEpisode(episodeId)) {
            made.put(new TakeSource(sound.takeId(), sound.treatment()), sound.made() ? sound.id() : null);
        }
        Places<Source> sources = new Places<>();
        Places<Fade> fades = new Places<>();
        List<TrackView> tracks = head.timeline().tracks().stream().map(track -> new TrackView(track.id(), track.name(), track.group(),
                track.gainDb(), track.pan(), track.muted(), track.curve().points(), track.clips().stream().map(clip -> view(clip, sources, fades)).toList())).toList();
        Finishes.Newest finish = finishes.newest(episodeId);
        return new TimelineView(head.seq(), head.point().undoTarget().isPresent(), head.point().redoTarget().isPresent(),
                head.timeline().endFrame(), tracks, sources.values().stream().map(source -> view(source, made)).toList(), fades.values(),
                head.timeline().flags(), views, finish.finish().name(), finish.revision(), since, StoredMaps.view(maps));
    }

    private static ClipView view(Clip clip, Places<Source> sources, Places<Fade> fades) {
        return new ClipView(clip.id(), sources.of(clip.source()), clip.startFrame(), clip.sourceFrame(), clip.frames(), clip.gainDb(),
                fades.of(clip.fadeIn()), fades.of(clip.fadeOut()));
    }

    private static SourceView view(Source source, Map<TakeSource, Long> made) {
        RoomSource room = source instanceof RoomSource it ? it : null;
        return new SourceView(source.takeId(), made.get(new TakeSource(source.takeId(), source.treatment())), room == null ? null : room.roomFrame(),
                room == null ? null : room.roomFrames(), source.treatment().step(RedrawTops.class).isPresent(), source.treatment().keepsTime(),
                source.treatment().step(Trick.class).map(Trick::kind).orElse(null));
    }

    /** The id that makes sending an edit twice harmless. */
    public static String clientId(String sent) {
        if (sent == null || !sent.matches("[0-9a-zA-Z-]{8,40}")) {
            throw new IllegalArgumentException("an edit needs a client id");
        }
        return sent;
    }
}

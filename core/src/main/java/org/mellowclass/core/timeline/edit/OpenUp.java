package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TimeMap;
import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Opens a gap: what stands at a frame or behind it on the chosen tracks stands so many frames later. A clip that is heard across
 * the frame is cut there.
 *
 * @param alongIds tracks on which nothing is cut, but clips that start there or later go along: those that somebody has made
 *                 meanwhile, tied to the chosen ones
 */
public record OpenUp(long frame, long frames, Set<Long> trackIds, Set<Long> alongIds) implements Edit {

    public OpenUp {
        trackIds = Set.copyOf(trackIds);
        alongIds = Set.copyOf(alongIds);
    }

    public OpenUp(long frame, long frames, Set<Long> trackIds) {
        this(frame, frames, trackIds, Set.of());
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        OnSpan.checkTracks(timeline, trackIds);
        if (frames <= 0) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        Edited edited = opened(timeline);
        if (edited.timeline().tracks().equals(timeline.tracks()) && edited.timeline().flags().equals(timeline.flags())) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        return edited;
    }

    /** The time is opened even where nothing stands behind it. */
    Edited opened(Timeline timeline) {
        OnSpan.Ids ids = new OnSpan.Ids(timeline);
        List<Track> opened = timeline.tracks().stream().map(track -> trackIds.contains(track.id()) ? opened(track, ids)
                : alongIds.contains(track.id()) ? track.mapClips(clip -> clip.startFrame() < frame ? clip : clip.movedBy(frames)) : track).toList();
        TimeMaps maps = new TimeMaps(Stream.concat(trackIds.stream(), alongIds.stream())
                .collect(Collectors.toMap(Function.identity(), id -> TimeMap.opening(frame, frames))));
        return new Edited(new Timeline(opened, timeline.flags(), ids.next()).withTimeMoved(maps), maps);
    }

    private Track opened(Track track, OnSpan.Ids ids) {
        List<Clip> clips = new ArrayList<>();
        for (Clip clip : track.clips()) {
            if (clip.endFrame() <= frame) {
                clips.add(clip);
            } else if (clip.startFrame() >= frame) {
                clips.add(clip.movedBy(frames));
            } else {
                clips.add(clip.until(frame, Fade.EDGE_FRAMES));
                clips.add(clip.from(frame, Fade.EDGE_FRAMES).withId(ids.take()).movedBy(frames));
            }
        }
        return track.withClips(clips);
    }

    /** Everything before it too: it must mean the same moment on all of its tracks. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofStretches(trackIds.stream().map(id -> new Footprint.Stretch(id, new Span(0, frame + 1))).collect(Collectors.toSet()));
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        OnSpan.checkTracks(meanwhile.base(), trackIds);
        Set<Long> left = trackIds.stream().filter(id -> meanwhile.head().track(id).isPresent()).collect(Collectors.toSet());
        if (left.isEmpty()) {
            return Optional.empty();
        }
        Set<Long> along = new HashSet<>(alongIds);
        along.addAll(meanwhile.newlyTiedTo(trackIds));
        return Optional.of(new OpenUp(meanwhile.oneMoment(left, frame), frames, left, along));
    }
}

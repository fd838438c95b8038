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
 * Takes a span out of the chosen tracks and closes the gap on them. A span may lie across several clips; every new edge
 * gets a fade of 5 ms inside the kept sound. Where two sides meet that were cut, what lay behind the cuts is heard 5 ms long
 * under their fades instead, with equal power, so that a steady sound goes on.
 *
 * @param alongIds tracks on which nothing is cut, but clips go along to where their starts have gone: those that somebody has
 *                 made meanwhile, tied to the chosen ones
 */
public record Remove(Span span, Set<Long> trackIds, Set<Long> alongIds) implements SpanEdit {

    public Remove {
        trackIds = Set.copyOf(trackIds);
        alongIds = Set.copyOf(alongIds);
    }

    public Remove(Span span, Set<Long> trackIds) {
        this(span, trackIds, Set.of());
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        OnSpan.checkTracks(timeline, trackIds);
        boolean flagsBehind = timeline.flags().stream().anyMatch(flag -> trackIds.contains(flag.trackId()) && flag.frame() >= span.startFrame());
        if (span.startFrame() >= timeline.endFrame() && !flagsBehind) {
            throw new EditRefused(EditRefused.Reason.SPAN_BEYOND_THE_END);
        }
        Edited edited = closed(timeline);
        if (edited.timeline().tracks().equals(timeline.tracks()) && edited.timeline().flags().equals(timeline.flags())) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        return edited;
    }

    /** The time is gone even where nothing stands in it or behind it. */
    Edited closed(Timeline timeline) {
        OnSpan.Ids ids = new OnSpan.Ids(timeline);
        List<Track> without = timeline.tracks().stream()
                .map(track -> trackIds.contains(track.id()) ? without(track, ids) : alongIds.contains(track.id()) ? along(track) : track).toList();
        TimeMaps maps = new TimeMaps(Stream.concat(trackIds.stream(), alongIds.stream()).collect(Collectors.toMap(Function.identity(), id -> TimeMap.removing(span))));
        return new Edited(new Timeline(without, timeline.flags(), ids.next()).withTimeMoved(maps), maps);
    }

    @Override
    public Remove on(Span otherSpan, Set<Long> otherTracks) {
        return new Remove(otherSpan, otherTracks, alongIds);
    }

    /** Free stretches as well: they are closed. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofStretches(trackIds.stream().map(id -> new Footprint.Stretch(id, span)).collect(Collectors.toSet()));
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        OnSpan.checkTracks(meanwhile.base(), trackIds);
        OnSpan.Parts parts = new OnSpan.Parts();
        for (long trackId : trackIds) {
            meanwhile.requireSame(trackId, span, Set.of());
            if (meanwhile.head().track(trackId).isPresent()) {
                parts.add(trackId, meanwhile.kept(meanwhile.map(trackId), span));
            }
        }
        Set<Long> along = new HashSet<>(alongIds);
        along.addAll(meanwhile.newlyTiedTo(trackIds));
        return parts.of(new Remove(span, trackIds, along));
    }

    private Track along(Track track) {
        TimeMap map = TimeMap.removing(span);
        List<Clip> moved = new ArrayList<>();
        long reached = 0;
        for (Clip clip : track.clips()) {
            moved.add(clip.movedBy(Math.max(reached, map.closest(clip.startFrame())) - clip.startFrame()));
            reached = moved.get(moved.size() - 1).endFrame();
        }
        return track.withClips(moved);
    }

    private Track without(Track track, OnSpan.Ids ids) {
        List<Clip> kept = new ArrayList<>();
        for (Clip clip : track.clips()) {
            if (clip.endFrame() <= span.startFrame()) {
                kept.add(clip);
            } else if (clip.startFrame() >= span.endFrame()) {
                kept.add(clip.movedBy(-span.frames()));
            } else {
                if (clip.startFrame() < span.startFrame()) {
                    kept.add(Cut.end(clip, span.startFrame()));
                }
                if (clip.endFrame() > span.endFrame()) {
                    kept.add(Cut.start(clip, span.endFrame()).withId(ids.take()).movedBy(-span.frames()));
                }
            }
        }
        return track.withClips(kept);
    }
}

package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;

/**
 * Takes a span out of the chosen tracks and closes the gap on them. A span may lie across several clips; every new edge
 * gets a fade of 5 ms inside the kept sound.
 */
public record Remove(Span span, Set<Long> trackIds) implements SpanEdit {

    public Remove {
        trackIds = Set.copyOf(trackIds);
    }

    @Override
    public Edited applyTo(Timeline timeline) {
        OnSpan.check(timeline, span, trackIds);
        OnSpan.Ids ids = new OnSpan.Ids(timeline);
        List<Track> tracks = timeline.tracks().stream()
                .map(track -> trackIds.contains(track.id()) ? without(track, ids) : track).toList();
        if (tracks.equals(timeline.tracks())) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        Map<Long, TimeMap> maps = trackIds.stream()
                .collect(Collectors.toMap(Function.identity(), id -> TimeMap.removing(span)));
        return new Edited(new Timeline(tracks, timeline.flags(), ids.next()).withFlagsMoved(maps), maps);
    }

    @Override
    public Remove on(Set<Long> otherTracks) {
        return new Remove(span, otherTracks);
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        Set<Footprint.Space> space = trackIds.stream()
                .map(id -> new Footprint.Space(id, span.startFrame(), span.endFrame())).collect(Collectors.toSet());
        return OnSpan.footprint(timeline, span, trackIds).and(Footprint.of(Set.of(), space));
    }

    @Override
    public Remove shiftedBy(long frames) {
        return new Remove(OnSpan.shifted(span, frames), trackIds);
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
                    kept.add(clip.until(span.startFrame(), Fade.EDGE_FRAMES));
                }
                if (clip.endFrame() > span.endFrame()) {
                    kept.add(clip.from(span.endFrame(), Fade.EDGE_FRAMES).withId(ids.take()).movedBy(-span.frames()));
                }
            }
        }
        return track.withClips(kept);
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.TimeMap;
import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Puts another take in the place of one. The passage on which the old take was heard becomes as long as the new take: what comes
 * later on the tied tracks moves away from a longer one; behind a shorter one, the rest of the passage is taken out of them. A
 * clip that is heard across the end of the passage plays on whole. Where neighbours adjoin, both ends get a crossfade. Other
 * clips of the old take, behind others' clips or on other tracks, just go.
 *
 * @param span     the stretch of the new take, in its frames
 * @param alongIds tracks that somebody has made meanwhile, tied to the passage's: nothing is taken out of them, they move along
 */
public record SwapTake(long oldTakeId, long newTakeId, Span span, Set<Long> alongIds) implements Edit {

    /** 10 ms, as where two kept sides of a cut meet. */
    private static final long CROSSFADE_FRAMES = 2 * Fade.EDGE_FRAMES;
    private static final long SHORTEST_NEIGHBOUR = 4 * CROSSFADE_FRAMES;

    /** Where the old take is heard: from the first of its clips up to where others' clips begin. */
    private record Passage(Track track, Clip first, long startFrame, long endFrame) {

        Set<Long> tied(Timeline timeline) {
            return timeline.tracks().stream().filter(other -> other.group() == track.group()).map(Track::id).collect(Collectors.toSet());
        }
    }

    public SwapTake {
        // edits that were stored before tracks moved along have none
        alongIds = alongIds == null ? Set.of() : Set.copyOf(alongIds);
    }

    public SwapTake(long oldTakeId, long newTakeId, Span span) {
        this(oldTakeId, newTakeId, span, Set.of());
    }

    /** By how much what comes later moves in a timeline to which it applies, in frames: negative if it comes nearer. */
    public long longerBy(Timeline timeline) {
        Passage passage = passage(timeline);
        return span.frames() - (passage.endFrame - passage.startFrame);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Passage passage = passage(timeline);
        Timeline without = timeline.mapTracks(track -> {
            Track left = track;
            for (Clip clip : track.clips()) {
                left = old(clip) ? Crossfades.without(left, clip) : left;
            }
            return left;
        }, timeline.nextId());
        Edited fitting = fitting(without, passage);
        Timeline ready = fitting.timeline();
        Clip clip = new Clip(ready.nextId(), new TakeSource(newTakeId), passage.startFrame, span.startFrame(), span.frames(),
                passage.first.gainDb(), Fade.EDGE, Fade.EDGE);
        return new Edited(ready.mapTracks(track -> track.id() == passage.track.id()
                ? Crossfades.with(track, reaching(clip, track, takes.frames(newTakeId))) : track, ready.nextId() + 1), fitting.maps());
    }

    private Edited fitting(Timeline without, Passage passage) {
        long endFrame = passage.startFrame + span.frames();
        Set<Long> tied = passage.tied(without);
        if (endFrame < passage.endFrame) {
            Set<Long> cut = new HashSet<>(tied);
            cut.removeAll(alongIds);
            return new Remove(new Span(endFrame, passage.endFrame), cut, alongIds).closed(without);
        }
        if (endFrame == passage.endFrame) {
            return Edited.inPlace(without);
        }
        long frames = endFrame - passage.endFrame;
        Timeline moved = without.mapTracks(track -> {
            long staysBefore = heardAcross(track, passage.endFrame);
            return tied.contains(track.id()) ? track.mapClips(clip -> clip.startFrame() < staysBefore ? clip : clip.movedBy(frames)) : track;
        }, without.nextId());
        TimeMaps maps = new TimeMaps(tied.stream().collect(Collectors.toMap(Function.identity(), id -> TimeMap.opening(passage.endFrame, frames))));
        return new Edited(moved.withTimeMoved(maps), maps);
    }

    /** The end of what is heard across a frame, with what is crossfaded with it; the frame itself if nothing is. */
    private static long heardAcross(Track track, long frame) {
        long end = frame;
        for (Clip clip : track.clips()) {
            if (clip.startFrame() < end) {
                end = Math.max(end, clip.endFrame());
            }
        }
        return end;
    }

    /** The clip as far over neighbours that adjoin it as a crossfade is long, where its take and they have that much. */
    private static Clip reaching(Clip clip, Track track, OptionalLong takeFrames) {
        if (clip.frames() < SHORTEST_NEIGHBOUR) {
            return clip;
        }
        long start = clip.startFrame();
        long end = clip.endFrame();
        for (Clip other : track.clips()) {
            if (other.frames() < SHORTEST_NEIGHBOUR) {
                continue;
            }
            if (other.endFrame() <= clip.startFrame() && clip.startFrame() - other.endFrame() < Fade.EDGE_FRAMES) {
                start = other.endFrame() - CROSSFADE_FRAMES;
            }
            if (other.startFrame() >= clip.endFrame() && other.startFrame() - clip.endFrame() < Fade.EDGE_FRAMES) {
                end = other.startFrame() + CROSSFADE_FRAMES;
            }
        }
        long early = Math.min(clip.startFrame() - start, clip.sourceFrame());
        long late = Math.min(end - clip.endFrame(), takeFrames.orElse(0) - clip.sourceFrame() - clip.frames());
        return new Clip(clip.id(), clip.source(), clip.startFrame() - early, clip.sourceFrame() - early, early + clip.frames() + Math.max(0, late),
                clip.gainDb(), clip.fadeIn(), clip.fadeOut());
    }

    private Passage passage(Timeline timeline) {
        Track track = timeline.tracks().stream().filter(it -> it.clips().stream().anyMatch(this::old)).findFirst()
                .orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        List<Clip> fromFirst = track.clips().stream().dropWhile(clip -> !old(clip)).toList();
        Clip first = fromFirst.get(0);
        Clip last = fromFirst.stream().takeWhile(this::old).reduce((one, next) -> next).orElseThrow();
        long startFrame = track.clips().stream().filter(clip -> clip.startFrame() < first.startFrame())
                .mapToLong(Clip::endFrame).reduce(first.startFrame(), Math::max);
        long endFrame = track.clips().stream().filter(clip -> !old(clip) && clip.startFrame() >= first.startFrame())
                .mapToLong(Clip::startFrame).reduce(last.endFrame(), Math::min);
        return new Passage(track, first, startFrame, Math.max(startFrame, endFrame));
    }

    private boolean old(Clip clip) {
        return clip.source() instanceof TakeSource && clip.source().takeId() == oldTakeId;
    }

    /**
     * All clips of the old take; the passage with its neighbours' edges; and on the tied tracks, where time opens or goes, and
     * everything before it: that must be the same moment on all of them.
     */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Passage passage = passage(timeline);
        Footprint touched = Footprint.ofClipsOf(timeline, oldTakeId).and(Footprint.ofTakes(Set.of(newTakeId)))
                .and(Footprint.ofStretch(passage.track.id(), new Span(Math.max(0, passage.startFrame - SHORTEST_NEIGHBOUR),
                        passage.endFrame + SHORTEST_NEIGHBOUR)));
        for (Track track : timeline.tracks()) {
            if (track.group() == passage.track.group()) {
                touched = touched.and(Footprint.ofStretch(track.id(), new Span(0, heardAcross(track, passage.endFrame) + 1)));
            }
        }
        return touched;
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Passage passage = passage(meanwhile.base());
        Set<Long> going = meanwhile.base().clipsOf(oldTakeId).stream().filter(this::old).map(Clip::id).collect(Collectors.toSet());
        meanwhile.requireThere(going);
        Set<Long> tied = passage.tied(meanwhile.base());
        if (passage.startFrame < passage.endFrame) {
            meanwhile.requireSame(passage.track.id(), new Span(passage.startFrame, passage.endFrame), going);
        }
        if (passage.startFrame + span.frames() != passage.endFrame) {
            meanwhile.oneMoment(tied, passage.endFrame);
        }
        if (passage.startFrame + span.frames() < passage.endFrame) {
            tied.forEach(id -> meanwhile.requireSame(id, new Span(passage.startFrame + span.frames(), passage.endFrame), going));
        }
        Set<Long> along = new HashSet<>(alongIds);
        along.addAll(meanwhile.newlyTiedTo(tied));
        return Optional.of(new SwapTake(oldTakeId, newTakeId, span, along));
    }
}

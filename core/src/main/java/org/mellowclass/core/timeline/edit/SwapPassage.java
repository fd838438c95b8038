package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Puts a stretch of a take in the place of a passage of one track, joined at both ends as {@link Remove} joins. Where it is longer
 * or shorter, time opens or closes behind it on the tied tracks.
 *
 * @param tiedIds  tracks that go along; the passage's own is always among them
 * @param alongIds as those of {@link OpenUp}
 */
public record SwapPassage(long trackId, Span passage, long takeId, Span span, Set<Long> tiedIds, Set<Long> alongIds) implements Edit {

    public SwapPassage {
        tiedIds = Stream.concat(tiedIds.stream(), Stream.of(trackId)).collect(Collectors.toUnmodifiableSet());
        alongIds = Set.copyOf(alongIds);
    }

    public SwapPassage(long trackId, Span passage, long takeId, Span span, Set<Long> tiedIds) {
        this(trackId, passage, takeId, span, tiedIds, Set.of());
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        OnSpan.check(timeline, passage, Set.of(trackId));
        OnSpan.checkTracks(timeline, tiedIds);
        if (span.endFrame() > takes.frames(takeId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TAKE))) {
            throw new EditRefused(EditRefused.Reason.BEYOND_THE_TAKE);
        }
        Edited fitting = fitting(timeline);
        OnSpan.Ids ids = new OnSpan.Ids(fitting.timeline());
        Track swapped = swapped(timeline.track(trackId).orElseThrow(), ids);
        Timeline ready = fitting.timeline().mapTracks(track -> track.id() == trackId ? swapped.withCurve(track.curve()) : track, ids.next());
        return new Edited(ready, fitting.maps());
    }

    private long longer() {
        return span.frames() - passage.frames();
    }

    private Edited fitting(Timeline timeline) {
        if (longer() > 0) {
            return new OpenUp(passage.endFrame(), longer(), tiedIds, alongIds).opened(timeline);
        }
        return longer() < 0 ? new Remove(closed(), tiedIds, alongIds).closed(timeline) : Edited.inPlace(timeline);
    }

    /** What of the passage's time goes. */
    private Span closed() {
        return new Span(passage.endFrame() + longer(), passage.endFrame());
    }

    private Track swapped(Track track, OnSpan.Ids ids) {
        List<Clip> clips = new ArrayList<>();
        double gainDb = track.clips().stream().filter(clip -> clip.overlaps(passage)).findFirst().map(Clip::gainDb).orElse(0.0);
        for (Clip clip : track.clips()) {
            if (clip.endFrame() <= passage.startFrame()) {
                clips.add(clip);
            } else if (clip.startFrame() >= passage.endFrame()) {
                clips.add(clip.movedBy(longer()));
            } else {
                if (clip.startFrame() < passage.startFrame()) {
                    clips.add(Cut.end(clip, passage.startFrame()));
                }
                if (clip.endFrame() > passage.endFrame()) {
                    clips.add(Cut.start(clip, passage.endFrame()).withId(ids.take()).movedBy(longer()));
                }
            }
        }
        Fade meeting = Fade.EDGE.meeting(Fade.Seam.EQUAL_POWER);
        clips.add(new Clip(ids.take(), new TakeSource(takeId), passage.startFrame(), span.startFrame(), span.frames(), gainDb, meeting, meeting));
        return track.withClips(clips);
    }

    /** Everything before its end: it must mean the same moments on all of its tracks. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofStretches(tiedIds.stream().map(id -> new Footprint.Stretch(id, new Span(0, passage.endFrame() + 1))).collect(Collectors.toSet()))
                .and(Footprint.ofTakes(Set.of(takeId)));
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        if (!meanwhile.head().trackIds().containsAll(tiedIds)) {
            throw Meanwhile.changed(Set.of());
        }
        meanwhile.requireSame(trackId, passage, Set.of());
        if (longer() < 0) {
            tiedIds.forEach(id -> meanwhile.requireSame(id, closed(), Set.of()));
        }
        long start = meanwhile.oneMoment(tiedIds, passage.startFrame());
        long end = meanwhile.oneMoment(tiedIds, passage.endFrame());
        if (end - start != passage.frames()) {
            throw Meanwhile.changed(Set.of());
        }
        Set<Long> along = new HashSet<>(alongIds);
        along.addAll(meanwhile.newlyTiedTo(tiedIds));
        return Optional.of(new SwapPassage(trackId, new Span(start, end), takeId, span, tiedIds, along));
    }
}

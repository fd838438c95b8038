package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
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
        Edited fitting = refit().fitted(timeline);
        OnSpan.Ids ids = new OnSpan.Ids(fitting.timeline());
        Track swapped = swapped(timeline.track(trackId).orElseThrow(), ids);
        Timeline ready = fitting.timeline().mapTracks(track -> track.id() == trackId ? swapped.withCurve(track.curve()) : track, ids.next());
        return new Edited(ready, fitting.maps());
    }

    private long longer() {
        return span.frames() - passage.frames();
    }

    private Refit refit() {
        return new Refit(passage, longer(), tiedIds, alongIds);
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

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return refit().footprint().and(Footprint.ofTakes(Set.of(takeId)));
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Refit now = refit().rebased(trackId, meanwhile);
        return Optional.of(new SwapPassage(trackId, now.passage(), takeId, span, tiedIds, now.alongIds()));
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Step;
import org.mellowclass.core.treatment.Treatment;

/**
 * Treats a take's sound by one more step, or by another one of its kind, in every clip that plays it. Where the step changes
 * time, each clip's frame 0 of the take stays where it stands, since that is what keeps it in step; edges that touch a
 * neighbour stay, and free edges go along with their words.
 */
public record Treat(long takeId, Step step) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        List<Clip> clips = timeline.clipsOf(takeId);
        if (clips.isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_CLIP);
        }
        if (done(clips)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(timeline.mapTracks(track -> track.mapClips(clip -> clip.source().takeId() == takeId ? treated(clip, track) : clip),
                timeline.nextId()));
    }

    private boolean done(List<Clip> clips) {
        return clips.stream().allMatch(clip -> clip.source().treatment().with(step).equals(clip.source().treatment()));
    }

    private Clip treated(Clip clip, Track track) {
        Treatment from = clip.source().treatment();
        Treatment to = from.with(step);
        Source source = clip.source().treated(to);
        if (!(source instanceof TakeSource) || from.timeAlone().equals(to.timeAlone())) {
            return clip.withSource(source);
        }
        long zero = clip.startFrame() - clip.sourceFrame();
        long start = zero + to.fromTake(from.toTake(clip.sourceFrame()));
        long end = zero + to.fromTake(from.toTake(clip.sourceFrame() + clip.frames()));
        for (Clip other : track.clips()) {
            // half of a gap each, since the neighbour's edge may move too
            if (other.id() != clip.id() && other.startFrame() <= clip.startFrame()) {
                start = within(start, clip.startFrame(), clip.startFrame() - other.endFrame());
            }
            if (other.id() != clip.id() && other.endFrame() >= clip.endFrame()) {
                end = within(end, clip.endFrame(), other.startFrame() - clip.endFrame());
            }
        }
        start = Math.max(0, start);
        if (end - start <= clip.fadeIn().reach() + clip.fadeOut().reach()) {
            start = clip.startFrame();
            end = clip.endFrame();
        }
        return new Clip(clip.id(), source, start, start - zero, end - start, clip.gainDb(), clip.fadeIn(), clip.fadeOut());
    }

    /** An edge that touches or lies over a neighbour stays; another one moves by half of the gap between them at most. */
    private static long within(long wanted, long was, long gap) {
        return gap <= 0 ? was : Math.max(was - gap / 2, Math.min(was + gap / 2, wanted));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        boolean keepsTime = Treatment.of(step).keepsTime();
        return keepsTime ? Footprint.ofTakes(Set.of(takeId)) : Footprint.ofClipsOf(timeline, takeId);
    }

    /** What was cut or moved meanwhile is no matter, but another step of the kind is. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        List<Clip> now = meanwhile.head().clipsOf(takeId);
        if (now.isEmpty() || done(now)) {
            return Optional.empty();
        }
        Set<Optional<Step>> before = new HashSet<>();
        meanwhile.base().clipsOf(takeId).forEach(clip -> before.add(ofKind(clip)));
        Set<Long> differing = now.stream().filter(clip -> !before.contains(ofKind(clip))).map(Clip::id).collect(Collectors.toSet());
        if (!differing.isEmpty()) {
            throw Meanwhile.changed(differing);
        }
        return Optional.of(this);
    }

    private Optional<Step> ofKind(Clip clip) {
        return clip.source().treatment().steps().stream().filter(other -> other.order() == step.order()).findFirst();
    }
}

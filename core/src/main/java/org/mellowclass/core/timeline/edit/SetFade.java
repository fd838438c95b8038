package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Gives a clip's start or end a fade of another length or shape. Where the clip is crossfaded with a neighbour, both sides take
 * the shape, and the length stays that of their overlap.
 *
 * @param frames 0 for no more than the short one of any edge
 */
public record SetFade(long clipId, Trim.Edge edge, long frames, Fade.Shape shape) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track track = timeline.trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Clip clip = track.clip(clipId).orElseThrow();
        if (shape == null) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        Optional<Clip> over = neighbour(track, clip);
        Track now = track.mapClips(other -> other.id() == clipId ? faded(clip, over.isPresent())
                : over.isPresent() && other.id() == over.get().id() ? shaped(other, edge != Trim.Edge.START) : other);
        if (now.equals(track)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(timeline.mapTracks(old -> old.id() == track.id() ? now : old, timeline.nextId()));
    }

    private Optional<Clip> neighbour(Track track, Clip clip) {
        return track.clips().stream().filter(other -> other.id() != clip.id() && other.overlaps(clip)
                && other.startFrame() < clip.startFrame() == (edge == Trim.Edge.START)).findFirst();
    }

    private Clip faded(Clip clip, boolean crossfaded) {
        if (crossfaded) {
            return shaped(clip, edge == Trim.Edge.START);
        }
        Fade other = edge == Trim.Edge.START ? clip.fadeOut() : clip.fadeIn();
        if (frames < 0 || frames + other.reach() > clip.frames()) {
            throw new EditRefused(EditRefused.Reason.FADE_TOO_LONG, Set.of(clipId));
        }
        Fade was = edge == Trim.Edge.START ? clip.fadeIn() : clip.fadeOut();
        Fade fade = frames == 0 ? Fade.EDGE.meeting(was.seam()) : Fade.of(frames, shape);
        return edge == Trim.Edge.START ? clip.withFades(fade, clip.fadeOut()) : clip.withFades(clip.fadeIn(), fade);
    }

    private Clip shaped(Clip clip, boolean start) {
        Fade was = start ? clip.fadeIn() : clip.fadeOut();
        Fade fade = new Fade(was.frames(), shape, was.skippedFrames(), was.edgeFrames(), was.seam());
        return start ? clip.withFades(fade, clip.fadeOut()) : clip.withFades(clip.fadeIn(), fade);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Footprint touched = Footprint.ofClip(timeline, clipId);
        Track track = timeline.trackOf(clipId).orElse(null);
        return track == null ? touched : neighbour(track, track.clip(clipId).orElseThrow())
                .map(over -> touched.and(Footprint.ofClip(timeline, over.id()))).orElse(touched);
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Track track = meanwhile.base().trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Optional<Clip> over = neighbour(track, track.clip(clipId).orElseThrow());
        if (over.isPresent() && meanwhile.same(over.get().id()).isEmpty()) {
            throw Meanwhile.changed(Set.of(over.get().id()));
        }
        return meanwhile.same(clipId).map(same -> this);
    }
}

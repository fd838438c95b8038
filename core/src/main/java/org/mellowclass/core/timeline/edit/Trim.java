package org.mellowclass.core.timeline.edit;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.TimeMap;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Moves one edge of a clip, inwards or back outwards as far as its take reaches and no neighbour is met. The new edge gets a
 * fade of 5 ms.
 *
 * @param frame      where the edge shall be on the timeline
 */
public record Trim(long clipId, Edge edge, long frame) implements Edit {

    public enum Edge { START, END }

    /** What is left is at least 20 ms, so that two fades fit. */
    public static final long SHORTEST_FRAMES = 4 * Fade.EDGE_FRAMES;

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Track track = timeline.trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Clip clip = track.clip(clipId).orElseThrow();
        if (frame == (edge == Edge.START ? clip.startFrame() : clip.endFrame())) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        if ((edge == Edge.START ? clip.endFrame() - frame : frame - clip.startFrame()) < SHORTEST_FRAMES) {
            throw new EditRefused(EditRefused.Reason.TOO_SHORT, Set.of(clipId));
        }
        boolean endless = clip.source() instanceof RoomSource;
        boolean reaches = edge == Edge.START
                ? frame >= 0 && clip.sourceFrame() + frame - clip.startFrame() >= 0
                : endless || clip.sourceFrame() + frame - clip.startFrame() <= clip.source().treatment().frames(takes.frames(clip.source().takeId()).orElse(0));
        if (!reaches) {
            throw new EditRefused(EditRefused.Reason.BEYOND_THE_TAKE, Set.of(clipId));
        }
        Clip trimmed = edge == Edge.START ? clip.from(frame, Fade.EDGE_FRAMES) : clip.until(frame, Fade.EDGE_FRAMES);
        if (trimmed.frames() > clip.frames()) {
            Span grown = edge == Edge.START ? new Span(frame, clip.startFrame()) : new Span(clip.endFrame(), frame);
            track.clips().stream().filter(other -> other.overlaps(grown)).findFirst().ifPresent(other -> {
                throw new EditRefused(EditRefused.Reason.SOUND_IS_THERE, Set.of(other.id()));
            });
        }
        return Edited.inPlace(timeline.mapClip(clipId, old -> trimmed));
    }

    /** Also what must be left of the clip beside the new edge. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return timeline.trackOf(clipId).map(track -> {
            Clip clip = track.clip(clipId).orElseThrow();
            Span touched = edge == Edge.START
                    ? new Span(Math.max(0, Math.min(frame, clip.startFrame())), Math.max(frame, clip.startFrame()) + SHORTEST_FRAMES)
                    : new Span(Math.max(0, Math.min(frame, clip.endFrame()) - SHORTEST_FRAMES), Math.max(frame, clip.endFrame()));
            return Footprint.ofStretch(track.id(), touched);
        }).orElse(Footprint.NOTHING);
    }

    /** The edge is that of the same sound, whatever clip it belongs to now. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Track track = meanwhile.base().trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Clip was = track.clip(clipId).orElseThrow();
        long stands = edge == Edge.START ? was.startFrame() : was.endFrame();
        if (frame < 0 || frame == stands) {
            return Optional.of(this);
        }
        boolean inwards = edge == Edge.START == frame > stands;
        Span touched = new Span(Math.min(frame, stands), Math.max(frame, stands));
        List<Span> left = meanwhile.kept(meanwhile.map(track.id()), touched);
        if (inwards && (left.isEmpty() || meanwhile.soundIsGone(track.id(), touched))) {
            return Optional.empty();
        }
        meanwhile.requireSame(track.id(), touched, Set.of());
        OptionalLong edgeNow = inwards ? OptionalLong.of(edge == Edge.START ? left.get(0).startFrame() : left.get(left.size() - 1).endFrame())
                : edge == Edge.START ? meanwhile.map(track.id()).map(stands) : oneMore(meanwhile.map(track.id()).map(stands - 1));
        Clip now = meanwhile.head().track(track.id()).stream().flatMap(it -> it.clips().stream())
                .filter(clip -> edgeNow.isPresent() && (edge == Edge.START ? clip.startFrame() : clip.endFrame()) == edgeNow.getAsLong())
                .filter(clip -> clip.source().sameSound(was.source())).findFirst().orElseThrow(() -> Meanwhile.changed(Set.of(clipId)));
        TimeMap map = meanwhile.map(track.id());
        long frameNow = edge == Edge.START || frame == 0 ? map.closest(frame) : oneMore(map.map(frame - 1)).orElse(map.closest(frame));
        return Optional.of(new Trim(now.id(), edge, frameNow));
    }

    private static OptionalLong oneMore(OptionalLong frame) {
        return frame.isPresent() ? OptionalLong.of(frame.getAsLong() + 1) : frame;
    }
}

package org.mellowclass.core.timeline;

import java.util.Set;

/**
 * Moves one edge of a clip, inwards or back outwards as far as its take reaches and no neighbour is met. The new edge gets a
 * fade of 5 ms.
 *
 * @param frame      where the edge shall be on the timeline
 * @param takeFrames how long the clip's take is
 */
public record Trim(long clipId, Edge edge, long frame, long takeFrames) implements Edit {

    public enum Edge { START, END }

    /** What is left is at least 20 ms, so that two fades fit. */
    public static final long SHORTEST_FRAMES = 4 * Fade.EDGE_FRAMES;

    @Override
    public Edited applyTo(Timeline timeline) {
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
                : endless || clip.sourceFrame() + frame - clip.startFrame() <= takeFrames;
        if (!reaches) {
            throw new EditRefused(EditRefused.Reason.BEYOND_THE_TAKE, Set.of(clipId));
        }
        Clip trimmed = edge == Edge.START ? clip.from(frame, Fade.EDGE_FRAMES) : clip.until(frame, Fade.EDGE_FRAMES);
        for (Clip other : track.clips()) {
            if (other.id() != clipId && trimmed.frames() > clip.frames() && other.overlaps(trimmed)
                    && (edge == Edge.START) == (other.startFrame() < clip.startFrame())) {
                throw new EditRefused(EditRefused.Reason.SOUND_IS_THERE, Set.of(other.id()));
            }
        }
        return Edited.inPlace(timeline.mapClip(clipId, old -> trimmed));
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        Set<Footprint.Space> grown = timeline.trackOf(clipId).map(track -> {
            Clip clip = track.clip(clipId).orElseThrow();
            long from = Math.min(frame, clip.startFrame());
            long to = Math.max(frame, clip.endFrame());
            return Set.of(new Footprint.Space(track.id(), from, to));
        }).orElse(Set.of());
        return Footprint.of(Set.of(clipId), grown);
    }

    @Override
    public Trim shiftedBy(long frames) {
        return new Trim(clipId, edge, frame + frames, takeFrames);
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.List;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;

/** Makes two clips of one at a frame, on the chosen tracks. Changes nothing that can be heard: the join has no fades. */
public record Split(long frame, Set<Long> trackIds) implements SpanEdit {

    public Split {
        trackIds = Set.copyOf(trackIds);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        return Edited.inPlace(OnSpan.change(timeline, span(), trackIds, this::halves));
    }

    @Override
    public Split on(Span otherSpan, Set<Long> otherTracks) {
        return new Split(otherSpan.startFrame(), otherTracks);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Span around = new Span(Math.max(0, frame - Fade.EDGE_FRAMES), frame + Fade.EDGE_FRAMES);
        return OnSpan.footprint(timeline, around, trackIds);
    }

    @Override
    public Span span() {
        return new Span(frame, frame + 1);
    }

    private List<Clip> halves(Clip clip, OnSpan.Ids ids) {
        if (clip.startFrame() == frame) {
            return List.of(clip);
        }
        long into = frame - clip.startFrame();
        if (into < clip.fadeIn().edgeFrames() || clip.frames() - into < clip.fadeOut().edgeFrames()) {
            throw new EditRefused(EditRefused.Reason.IN_A_FADE, Set.of(clip.id()));
        }
        return List.of(clip.until(frame, 0), clip.from(frame, 0).withId(ids.take()));
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;

/** Takes a span out of the chosen tracks and leaves the gap: true silence, and nothing moves. */
public record Clear(Span span, Set<Long> trackIds) implements SpanEdit {

    public Clear {
        trackIds = Set.copyOf(trackIds);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        return Edited.inPlace(OnSpan.change(timeline, span, trackIds, this::outside));
    }

    @Override
    public Clear on(Span otherSpan, Set<Long> otherTracks) {
        return new Clear(otherSpan, otherTracks);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return OnSpan.footprint(timeline, span, trackIds);
    }

    private List<Clip> outside(Clip clip, OnSpan.Ids ids) {
        List<Clip> left = new ArrayList<>();
        if (clip.startFrame() < span.startFrame()) {
            left.add(clip.until(span.startFrame(), Fade.EDGE_FRAMES));
        }
        if (clip.endFrame() > span.endFrame()) {
            left.add(clip.from(span.endFrame(), Fade.EDGE_FRAMES).withId(ids.take()));
        }
        return left;
    }
}

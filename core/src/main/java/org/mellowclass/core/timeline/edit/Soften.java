package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;

/**
 * Lowers a span by 12 dB on the chosen tracks: a breath that is gone sounds wrong. Where the span cuts a clip, the gain
 * glides over 5 ms inside the span: both sides play the same take in step, and their fades sum to one.
 */
public record Soften(Span span, Set<Long> trackIds) implements SpanEdit {

    public static final double BY_DB = -12;

    public Soften {
        trackIds = Set.copyOf(trackIds);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        return Edited.inPlace(OnSpan.change(timeline, span, trackIds, this::softened));
    }

    @Override
    public Soften on(Span otherSpan, Set<Long> otherTracks) {
        return new Soften(otherSpan, otherTracks);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return OnSpan.footprint(timeline, span, trackIds);
    }

    private List<Clip> softened(Clip clip, OnSpan.Ids ids) {
        List<Clip> clips = new ArrayList<>();
        long start = Math.max(span.startFrame(), clip.startFrame());
        long end = Math.min(span.endFrame(), clip.endFrame());
        long glide = Math.min(Fade.EDGE_FRAMES, (end - start) / 2);
        Clip soft = clip.withGain(clip.gainDb() + BY_DB);
        if (clip.startFrame() < start) {
            clips.add(clip.until(start + glide, glide));
            soft = soft.from(start, glide).withId(ids.take());
        }
        if (clip.endFrame() > end) {
            soft = soft.until(end, glide);
            clips.add(clip.from(end - glide, glide).withId(ids.take()));
        }
        clips.add(soft);
        return clips;
    }
}

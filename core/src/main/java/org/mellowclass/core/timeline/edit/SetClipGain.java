package org.mellowclass.core.timeline.edit;

import java.util.Optional;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;

/** Sets the gain of a clip, in dB. */
public record SetClipGain(long clipId, double gainDb) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Clip clip = timeline.clip(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Gains.check(gainDb, clip.gainDb());
        return Edited.inPlace(timeline.mapClip(clipId, old -> old.withGain(gainDb)));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofClip(timeline, clipId);
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        return meanwhile.same(clipId).map(same -> this);
    }
}

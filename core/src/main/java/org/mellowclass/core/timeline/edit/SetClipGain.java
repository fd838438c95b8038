package org.mellowclass.core.timeline;

import java.util.Set;

/** Sets the gain of a clip, in dB. */
public record SetClipGain(long clipId, double gainDb) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline) {
        Clip clip = timeline.clip(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
        Gains.check(gainDb, clip.gainDb());
        return Edited.inPlace(timeline.mapClip(clipId, old -> old.withGain(gainDb)));
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return Footprint.ofClips(Set.of(clipId));
    }

    @Override
    public SetClipGain shiftedBy(long frames) {
        return this;
    }
}

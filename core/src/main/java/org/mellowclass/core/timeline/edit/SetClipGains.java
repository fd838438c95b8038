package org.mellowclass.core.timeline.edit;

import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

import org.mellowclass.core.timeline.Timeline;

/** Sets the gains of several clips at once, in dB by clip. */
public record SetClipGains(Map<Long, Double> gainsDb) implements Edit {

    public SetClipGains {
        gainsDb = Map.copyOf(gainsDb);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        gainsDb.forEach((clipId, gainDb) -> {
            if (timeline.clip(clipId).isEmpty()) {
                throw new EditRefused(EditRefused.Reason.NO_SUCH_CLIP);
            }
            Gains.check(gainDb);
        });
        Timeline now = timeline.mapTracks(track -> track.mapClips(clip -> gainsDb.containsKey(clip.id()) ? clip.withGain(gainsDb.get(clip.id())) : clip),
                timeline.nextId());
        if (now.equals(timeline)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(now);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return gainsDb.keySet().stream().map(id -> Footprint.ofClip(timeline, id)).reduce(Footprint.NOTHING, Footprint::and);
    }

    /** Clips that are gone need none; all others must be as they were. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Map<Long, Double> left = new TreeMap<>();
        gainsDb.forEach((clipId, gainDb) -> meanwhile.same(clipId).ifPresent(same -> left.put(clipId, gainDb)));
        return left.isEmpty() ? Optional.empty() : Optional.of(new SetClipGains(left));
    }
}

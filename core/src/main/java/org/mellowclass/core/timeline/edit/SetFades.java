package org.mellowclass.core.timeline.edit;

import java.util.List;
import java.util.Optional;

import org.mellowclass.core.timeline.Timeline;

/** Sets several fades at once. */
public record SetFades(List<SetFade> fades) implements Edit {

    public SetFades {
        fades = List.copyOf(fades);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Timeline now = timeline;
        for (SetFade fade : fades) {
            try {
                now = fade.applyTo(now, takes).timeline();
            } catch (EditRefused refused) {
                if (!refused.needless()) {
                    throw refused;
                }
            }
        }
        if (now.equals(timeline)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(now);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return fades.stream().map(fade -> fade.footprint(timeline, takes)).reduce(Footprint.NOTHING, Footprint::and);
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        List<SetFade> left = fades.stream().filter(fade -> fade.rebased(meanwhile).isPresent()).toList();
        return left.isEmpty() ? Optional.empty() : Optional.of(new SetFades(left));
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;

/**
 * Edits that are one to the student: one whose tracks or ends have come apart meanwhile, or a fix that needs several. None of them
 * moves what those behind it in the list are for; those that have become needless are left out.
 */
public record Together(List<Edit> edits) implements Edit {

    public Together {
        edits = List.copyOf(edits);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        Timeline now = timeline;
        TimeMaps maps = TimeMaps.NONE;
        for (Edit edit : edits) {
            try {
                Edited edited = edit instanceof Remove remove ? remove.closed(now) : edit.applyTo(now, takes);
                now = edited.timeline();
                maps = maps.then(edited.maps());
            } catch (EditRefused refused) {
                if (!refused.needless()) {
                    throw refused;
                }
            }
        }
        if (now.tracks().equals(timeline.tracks()) && now.flags().equals(timeline.flags())) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        return new Edited(now, maps);
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return edits.stream().map(edit -> edit.footprint(timeline, takes)).reduce(Footprint.NOTHING, Footprint::and);
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        List<Edit> parts = new ArrayList<>();
        for (Edit edit : edits) {
            edit.rebased(meanwhile).ifPresent(part -> {
                if (part instanceof Together several) {
                    parts.addAll(several.edits);
                } else {
                    parts.add(part);
                }
            });
        }
        return parts.isEmpty() ? Optional.empty() : Optional.of(new Together(parts));
    }
}

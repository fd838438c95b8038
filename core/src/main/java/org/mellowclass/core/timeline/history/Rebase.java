package org.mellowclass.core.timeline.history;

import java.util.Optional;

import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.Edited;
import org.mellowclass.core.timeline.edit.Meanwhile;
import org.mellowclass.core.timeline.edit.TakeFacts;

/**
 * An edit that was made on an older timeline, taken over to the newest one, so that two people can work at once: edits that
 * touch nothing in common both apply, and come to the same in either order.
 *
 * @param edit   as it applies to the newest timeline
 * @param edited what it has made of it
 */
public record Rebase(Edit edit, Edited edited) {

    /**
     * @param base the timeline that the edit was made on
     * @param head the newest one
     * @param maps where the time of tracks has gone from one to the other
     * @return empty if there is nothing left to do
     * @throws EditRefused if somebody has changed what it touches, with the clips that differ; or if it cannot apply
     */
    public static Optional<Rebase> of(Edit edit, Timeline base, Timeline head, TimeMaps maps, TakeFacts takes) {
        try {
            return edit.rebased(new Meanwhile(base, head, maps, takes)).map(now -> new Rebase(now, now.applyTo(head, takes)));
        } catch (EditRefused refused) {
            if (refused.needless()) {
                return Optional.empty();
            }
            throw refused;
        }
    }
}

package org.mellowclass.core.testing;

import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.Random;

import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.TimelineTooLong;
import org.mellowclass.core.timeline.edit.EditRefused;

/** Timelines after edits of a seed. */
public final class AfterEdits {

    private AfterEdits() {
    }

    /** After so many edits that apply, or fewer where none does, or nothing is left. */
    public static Timeline someTimes(Timeline timeline, Random random, int edits) {
        Timeline edited = timeline;
        for (int done = 0, tried = 0; done < edits && tried < 20 * edits && edited.endFrame() > 0; tried++) {
            try {
                edited = Timelines.edit(edited, random).applyTo(edited, TAKES).timeline();
                done++;
            } catch (EditRefused | TimelineTooLong refused) {
                // another one
            }
        }
        return edited;
    }
}

package org.mellowclass.app.bench;

import org.mellowclass.app.web.Fields;
import org.mellowclass.core.timeline.edit.AddFlag;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.NameFlag;
import org.mellowclass.core.timeline.edit.RemoveFlag;

/** Wishes that are about named moments. */
sealed interface FlagWish extends Wish {

    record Flagging(long trackId, long frame, String name) implements FlagWish {
        @Override
        public Edit edit(Asked asked) {
            if (Fields.frame(frame) > asked.base().endFrame()) {
                throw new EditRefused(EditRefused.Reason.SPAN_BEYOND_THE_END);
            }
            return new AddFlag(trackId, frame, Wish.name(name, "bench.FLAG_TOO_LONG"));
        }
    }

    record NamingFlag(long flagId, String name) implements FlagWish {
        @Override
        public Edit edit(Asked asked) {
            return new NameFlag(flagId, Wish.name(name, "bench.FLAG_TOO_LONG"));
        }
    }

    record Unflagging(long flagId) implements FlagWish {
        @Override
        public Edit edit(Asked asked) {
            return new RemoveFlag(flagId);
        }
    }
}

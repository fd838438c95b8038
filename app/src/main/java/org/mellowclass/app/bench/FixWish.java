package org.mellowclass.app.bench;

import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.timeline.edit.Edit;

/** To mend what a reading of the sound check has found. */
record FixWish(Reading.Kind kind) implements Wish {

    @Override
    public Edit edit(Asked asked) {
        return asked.fix(Wish.given(kind));
    }
}

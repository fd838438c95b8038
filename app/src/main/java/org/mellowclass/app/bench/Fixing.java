package org.mellowclass.app.bench;

import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Edit;

/** Knows how to mend what the sound check found. */
public interface Fixing {

    /**
     * The edit that mends a reading of a revision of an episode that has been let through.
     *
     * @param timeline of that revision; there may be a newer one
     * @throws org.mellowclass.app.web.Refusal where nothing mends it, or another revision was read
     */
    Edit fix(long episodeId, long revision, Timeline timeline, Reading.Kind kind);
}

package org.mellowclass.core.timeline.edit;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;

/** What is left of clips that are cut: with an edge that meets whatever comes to stand beside it, if there is sound enough behind it. */
final class Cut {

    private Cut() {
    }

    /** A clip up to a frame. */
    static Clip end(Clip clip, long frame) {
        Clip left = clip.until(frame, Fade.EDGE_FRAMES);
        return clip.endFrame() - frame < Fade.EDGE_FRAMES ? left : left.withFades(left.fadeIn(), left.fadeOut().meeting(Fade.Seam.EQUAL_POWER));
    }

    /** A clip from a frame on. */
    static Clip start(Clip clip, long frame) {
        Clip left = clip.from(frame, Fade.EDGE_FRAMES);
        return left.sourceFrame() < Fade.EDGE_FRAMES ? left : left.withFades(left.fadeIn().meeting(Fade.Seam.EQUAL_POWER), left.fadeOut());
    }
}

package org.mellowclass.app.web;

import org.mellowclass.core.timeline.Timeline;

/** What comes from outside, checked: texts for their length, frames for the greatest length of a timeline. */
public final class Fields {

    private Fields() {
    }

    /**
     * A text that may not be missing.
     *
     * @param code of the refusal, whose argument is the greatest length
     */
    public static String required(String text, int longest, String code) {
        String stripped = optional(text, longest, code);
        if (stripped.isEmpty()) {
            throw Refusal.unfit(code, longest);
        }
        return stripped;
    }

    /** A frame on a timeline, or less than 0 where that means something; returns it. */
    public static long frame(long frame) {
        if (frame > Timeline.MOST_FRAMES || frame < -Timeline.MOST_FRAMES) {
            throw Refusal.unfit("frame.BEYOND");
        }
        return frame;
    }

    /** A text that may be empty. */
    public static String optional(String text, int longest, String code) {
        String stripped = text == null ? "" : text.strip();
        if (stripped.length() > longest) {
            throw Refusal.unfit(code, longest);
        }
        return stripped;
    }
}

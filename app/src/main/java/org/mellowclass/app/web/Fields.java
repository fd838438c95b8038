package org.mellowclass.app.web;

import java.util.regex.Pattern;

import org.mellowclass.core.timeline.Timeline;

/** What comes from outside, checked: texts for their length, frames for the greatest length of a timeline. */
public final class Fields {

    private static final Pattern NOT_XML = Pattern.compile("[^\\t\\n\\r\\x{20}-\\x{D7FF}\\x{E000}-\\x{FFFD}\\x{10000}-\\x{10FFFF}]");

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

    /** What people typed without the characters that no XML may hold (XML 1.0, 2.2), and without space around it. */
    public static String plain(String text) {
        return text == null ? "" : NOT_XML.matcher(text).replaceAll("").strip();
    }

    /** A text that may be empty. */
    public static String optional(String text, int longest, String code) {
        String stripped = plain(text);
        if (stripped.length() > longest) {
            throw Refusal.unfit(code, longest);
        }
        return stripped;
    }

    /** The last part of a path, whichever way its strokes lean. */
    public static String lastOfPath(String path) {
        return path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
    }
}

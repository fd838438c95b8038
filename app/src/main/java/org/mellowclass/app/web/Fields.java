package org.mellowclass.app.web;

/** What people typed, stripped and checked for its length. */
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

    /** A text that may be empty. */
    public static String optional(String text, int longest, String code) {
        String stripped = text == null ? "" : text.strip();
        if (stripped.length() > longest) {
            throw Refusal.unfit(code, longest);
        }
        return stripped;
    }
}

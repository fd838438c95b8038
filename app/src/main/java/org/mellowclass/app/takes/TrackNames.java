package org.mellowclass.app.takes;

import org.mellowclass.app.web.Refusal;

/** What a track may be called. */
final class TrackNames {

    private static final int LONGEST = 60;

    private TrackNames() {
    }

    static String checked(String name) {
        String stripped = name == null ? "" : name.strip();
        if (stripped.isEmpty() || stripped.length() > LONGEST) {
            throw Refusal.unfit("take.TRACK_NAME", LONGEST);
        }
        return stripped;
    }
}

package org.mellowclass.core.talk;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** How loud the clips of a page are, from what was measured of their takes, and where somebody speaks. */
public final class Levels {

    private Levels() {
    }

    /** The loudness of a clip in the mix in LUFS, of stereo; without its fades and the track's curve. Empty if it is not known, or silent. */
    public static Optional<Double> lufs(Track track, Clip clip, TalkFacts facts) {
        return facts.of(clip.source().takeId()).filter(measured -> measured.loudnessLufs() != null && clip.source() instanceof TakeSource)
                .map(measured -> measured.loudnessLufs() + track.gainDb() + clip.gainDb());
    }

    /** The clips in which somebody speaks, of tracks that are not muted; those whose loudness is known. */
    public static List<EvenVoices.Spoken> spoken(Timeline timeline, TalkFacts facts) {
        List<EvenVoices.Spoken> spoken = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.muted() ? List.<Clip>of() : track.clips()) {
                if (facts.of(clip.source().takeId()).filter(TalkFacts.Measured::voice).isPresent()) {
                    lufs(track, clip, facts).ifPresent(lufs -> spoken.add(new EvenVoices.Spoken(track, clip, lufs)));
                }
            }
        }
        return spoken;
    }
}

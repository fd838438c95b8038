package org.mellowclass.core.talk;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Gains;

/** How loud the clips of a page are, from what was measured of their takes, and the gains that make voices even. */
public final class Levels {

    private Levels() {
    }

    /** The loudness of a clip in the mix in LUFS, of stereo; without its fades and the track's curve. Empty if it is not known, or silent. */
    public static Optional<Double> lufs(Track track, Clip clip, TalkFacts facts) {
        return facts.of(clip.source().takeId()).filter(measured -> measured.loudnessLufs() != null && clip.source() instanceof TakeSource)
                .map(measured -> measured.loudnessLufs() + track.gainDb() + clip.gainDb());
    }

    /** The mean loudness of clips by their lengths, as power. Empty if none is known. */
    public static Optional<Double> mean(Timeline timeline, TalkFacts facts, boolean voices) {
        double power = 0;
        double frames = 0;
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.muted() ? List.<Clip>of() : track.clips()) {
                Optional<Double> lufs = lufs(track, clip, facts);
                if (lufs.isPresent() && facts.of(clip.source().takeId()).orElseThrow().voice() == voices) {
                    power += clip.frames() * Decibels.toPower(lufs.get());
                    frames += clip.frames();
                }
            }
        }
        return frames == 0 ? Optional.empty() : Optional.of(Decibels.ofPower(power / frames));
    }

    /** The gains by clip that bring every take in which somebody speaks to the mean loudness of them all, in steps of half a dB. */
    public static Map<Long, Double> even(Timeline timeline, TalkFacts facts) {
        Map<Long, Double> gains = new HashMap<>();
        mean(timeline, facts, true).ifPresent(target -> {
            for (Track track : timeline.tracks()) {
                for (Clip clip : track.muted() ? List.<Clip>of() : track.clips()) {
                    if (facts.of(clip.source().takeId()).filter(TalkFacts.Measured::voice).isPresent()) {
                        lufs(track, clip, facts).ifPresent(lufs -> {
                            double gain = Math.rint(2 * (clip.gainDb() + target - lufs)) / 2;
                            gains.put(clip.id(), Math.max(Gains.LOWEST_DB, Math.min(Gains.HIGHEST_DB, gain)));
                        });
                    }
                }
            }
        });
        return gains;
    }
}

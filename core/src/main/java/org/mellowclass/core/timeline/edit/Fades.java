package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** The fades of a page, as a list: those that somebody has made, not the short ones that every edge has. */
public final class Fades {

    private Fades() {
    }

    /** What a fade is to the ear. */
    public enum Kind { IN, OUT, CROSSFADE }

    /**
     * One fade.
     *
     * @param edge       of the clip, on which it lies; of a crossfade, the start of the later clip
     * @param startFrame where it begins on the page
     * @param stray      whether it is left over: a part of a fade whose end was cut off, or a dip where two clips meet
     */
    public record Listed(long trackId, long clipId, Trim.Edge edge, Kind kind, long startFrame, long frames, boolean stray) {
    }

    /** All of them, in the order of the page. */
    public static List<Listed> of(Timeline timeline) {
        List<Listed> all = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.clips()) {
                boolean crossIn = track.clips().stream().anyMatch(other -> other.startFrame() < clip.startFrame() && other.overlaps(clip.span()));
                boolean crossOut = track.clips().stream().anyMatch(other -> other.startFrame() > clip.startFrame() && other.overlaps(clip.span()));
                long in = left(clip.fadeIn());
                long out = left(clip.fadeOut());
                if (in > 0) {
                    boolean stray = !crossIn && (clip.fadeIn().skippedFrames() > 0
                            || track.clips().stream().anyMatch(other -> Math.abs(other.endFrame() - clip.startFrame()) < Fade.EDGE_FRAMES));
                    all.add(new Listed(track.id(), clip.id(), Trim.Edge.START, crossIn ? Kind.CROSSFADE : Kind.IN, clip.startFrame(), in, stray));
                }
                if (out > 0 && !crossOut) {
                    boolean stray = clip.fadeOut().skippedFrames() > 0
                            || track.clips().stream().anyMatch(other -> Math.abs(other.startFrame() - clip.endFrame()) < Fade.EDGE_FRAMES);
                    all.add(new Listed(track.id(), clip.id(), Trim.Edge.END, Kind.OUT, clip.endFrame() - out, out, stray));
                }
            }
        }
        all.sort(Comparator.comparingLong(Listed::startFrame));
        return all;
    }

    private static long left(Fade fade) {
        return fade.frames() - fade.skippedFrames();
    }

    /**
     * The edit that takes all strays away.
     *
     * @throws EditRefused if there are none
     */
    public static SetFades clearStrays(Timeline timeline) {
        List<SetFade> strays = of(timeline).stream().filter(Listed::stray)
                .map(fade -> new SetFade(fade.clipId(), fade.edge(), 0, Fade.Shape.GENTLE)).toList();
        if (strays.isEmpty()) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return new SetFades(strays);
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Track;

/** Crossfades between neighbours of a track that lie over each other. */
final class Crossfades {

    private Crossfades() {
    }

    /** A clip with plain edges where it lies over neighbours now. */
    static Clip undone(Clip clip, Track track) {
        Clip alone = clip;
        for (Clip other : track.clips()) {
            if (other.id() != clip.id() && other.overlaps(clip)) {
                alone = other.startFrame() < clip.startFrame()
                        ? alone.withFades(Fade.EDGE, alone.fadeOut()) : alone.withFades(alone.fadeIn(), Fade.EDGE);
            }
        }
        return alone;
    }

    /** A track without a clip; neighbours that it lay over get plain edges. */
    static Track without(Track track, Clip gone) {
        List<Clip> kept = new ArrayList<>();
        for (Clip clip : track.clips()) {
            if (clip.id() == gone.id()) {
                continue;
            }
            if (!clip.overlaps(gone)) {
                kept.add(clip);
            } else if (clip.startFrame() < gone.startFrame()) {
                kept.add(clip.withFades(clip.fadeIn(), Fade.EDGE));
            } else {
                kept.add(clip.withFades(Fade.EDGE, clip.fadeOut()));
            }
        }
        return track.withClips(kept);
    }

    /**
     * A track with one more clip, crossfaded with the neighbours that it lies over.
     *
     * @throws EditRefused if it would lie inside a clip, over a whole one, or over a crossfade
     */
    static Track with(Track track, Clip added) {
        Clip fitted = added;
        List<Clip> clips = new ArrayList<>();
        for (Clip clip : track.clips()) {
            if (!clip.overlaps(added)) {
                clips.add(clip);
                continue;
            }
            boolean before = clip.startFrame() < added.startFrame();
            boolean behind = clip.endFrame() > added.endFrame();
            if (before == behind || track.clips().stream().anyMatch(other -> other.id() != clip.id() && other.overlaps(clip)
                    && before == other.startFrame() > clip.startFrame())) {
                // that edge is in a crossfade already
                throw new EditRefused(EditRefused.Reason.SOUND_IS_THERE, Set.of(clip.id()));
            }
            if (Math.min(clip.endFrame(), added.endFrame()) - Math.max(clip.startFrame(), added.startFrame()) < Fade.EDGE_FRAMES) {
                // too short to fade: the edges do
                clips.add(before ? clip.withFades(clip.fadeIn(), Fade.EDGE) : clip.withFades(Fade.EDGE, clip.fadeOut()));
                fitted = before ? fitted.withFades(Fade.EDGE, fitted.fadeOut()) : fitted.withFades(fitted.fadeIn(), Fade.EDGE);
                continue;
            }
            Fade.Shape shape = clip.inStepWith(added) ? Fade.Shape.GENTLE : Fade.Shape.EQUAL_POWER;
            if (before) {
                Fade fade = Fade.of(clip.endFrame() - added.startFrame(), shape);
                clips.add(clip.withFades(clip.fadeIn(), fade));
                fitted = fitted.withFades(fade, fitted.fadeOut());
            } else {
                Fade fade = Fade.of(added.endFrame() - clip.startFrame(), shape);
                clips.add(clip.withFades(fade, clip.fadeOut()));
                fitted = fitted.withFades(fitted.fadeIn(), fade);
            }
        }
        if (fitted.fadeIn().frames() + fitted.fadeOut().frames() > fitted.frames() && fitted != added) {
            throw new EditRefused(EditRefused.Reason.SOUND_IS_THERE, Set.of(added.id()));
        }
        clips.add(fitted);
        return track.withClips(clips);
    }
}

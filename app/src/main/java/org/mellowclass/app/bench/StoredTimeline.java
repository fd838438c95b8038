package org.mellowclass.app.bench;

import com.fasterxml.jackson.annotation.JsonFormat;
import java.util.List;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;

/**
 * A timeline as it is stored. Every edit writes all of it: what its clips play and the fades that they begin and end with, a few for
 * hundreds of clips, stand in it once.
 *
 * @param sources in the order in which clips first name them, as {@code fades}
 */
record StoredTimeline(List<Source> sources, List<Fade> fades, List<StoredTrack> tracks, List<Flag> flags, long nextId) {

    record StoredTrack(long id, String name, int group, double gainDb, double pan, boolean muted, VolumeCurve curve, List<StoredClip> clips) {

        private static StoredTrack of(Track track, Places<Source> sources, Places<Fade> fades) {
            return new StoredTrack(track.id(), track.name(), track.group(), track.gainDb(), track.pan(), track.muted(), track.curve(),
                    track.clips().stream().map(clip -> StoredClip.of(clip, sources, fades)).toList());
        }

        private Track track(StoredTimeline of) {
            return new Track(id, name, group, gainDb, pan, muted, curve, clips.stream().map(clip -> clip.clip(of)).toList());
        }
    }

    /** A row of numbers, in this order; a source and fades are places in the timeline's lists, from 0. */
    @JsonFormat(shape = JsonFormat.Shape.ARRAY)
    record StoredClip(long id, int source, long startFrame, long sourceFrame, long frames, double gainDb, int fadeIn, int fadeOut) {

        private static StoredClip of(Clip clip, Places<Source> sources, Places<Fade> fades) {
            return new StoredClip(clip.id(), sources.of(clip.source()), clip.startFrame(), clip.sourceFrame(), clip.frames(), clip.gainDb(),
                    fades.of(clip.fadeIn()), fades.of(clip.fadeOut()));
        }

        private Clip clip(StoredTimeline of) {
            return new Clip(id, of.sources.get(source), startFrame, sourceFrame, frames, gainDb, of.fades.get(fadeIn), of.fades.get(fadeOut));
        }
    }

    static StoredTimeline of(Timeline timeline) {
        Places<Source> sources = new Places<>();
        Places<Fade> fades = new Places<>();
        List<StoredTrack> tracks = timeline.tracks().stream().map(track -> StoredTrack.of(track, sources, fades)).toList();
        return new StoredTimeline(sources.values(), fades.values(), tracks, timeline.flags(), timeline.nextId());
    }

    Timeline timeline() {
        return new Timeline(tracks.stream().map(track -> track.track(this)).toList(), flags, nextId);
    }
}

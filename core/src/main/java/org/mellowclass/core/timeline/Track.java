package org.mellowclass.core.timeline;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * A named voice or music in the timeline.
 *
 * @param id     unique in its timeline, never used again
 * @param group  tracks with the same number are tied: they are cut as one
 * @param gainDb a gain for the whole track
 * @param pan    from -1, all on the left, over 0 to 1
 * @param muted  left out of the mix
 * @param curve  a gain over time, on top
 * @param clips  ordered by their starts; an edge that shall meet a neighbour and has none lies inside its clip
 */
public record Track(long id, String name, int group, double gainDb, double pan, boolean muted, VolumeCurve curve, List<Clip> clips) {

    public Track {
        if (!(pan >= -1 && pan <= 1)) {
            throw new IllegalArgumentException("no place between left and right: " + pan);
        }
        clips = meeting(clips.stream().sorted(Comparator.comparingLong(Clip::startFrame).thenComparingLong(Clip::id)).toList());
    }

    /** One in the middle, without a curve. */
    public Track(long id, String name, int group, double gainDb, boolean muted, List<Clip> clips) {
        this(id, name, group, gainDb, 0, muted, VolumeCurve.NONE, clips);
    }

    private static List<Clip> meeting(List<Clip> clips) {
        if (clips.stream().noneMatch(clip -> clip.fadeIn().overFrames() > 0 || clip.fadeOut().overFrames() > 0)) {
            return clips;
        }
        Map<Long, Fade.Seam> ends = new HashMap<>();
        Map<Long, Fade.Seam> starts = new HashMap<>();
        clips.forEach(clip -> {
            ends.put(clip.endFrame(), clip.fadeOut().seam());
            starts.put(clip.startFrame(), clip.fadeIn().seam());
        });
        return clips.stream().map(clip -> clip.withFades(
                ends.get(clip.startFrame()) == clip.fadeIn().seam() ? clip.fadeIn() : clip.fadeIn().meeting(Fade.Seam.INSIDE),
                starts.get(clip.endFrame()) == clip.fadeOut().seam() ? clip.fadeOut() : clip.fadeOut().meeting(Fade.Seam.INSIDE))).toList();
    }

    /** Where the last clip ends; 0 on an empty track. */
    public long endFrame() {
        return clips.stream().mapToLong(Clip::endFrame).max().orElse(0);
    }

    public Optional<Clip> clip(long clipId) {
        return clips.stream().filter(clip -> clip.id() == clipId).findFirst();
    }

    public Track withClips(List<Clip> newClips) {
        return new Track(id, name, group, gainDb, pan, muted, curve, newClips);
    }

    public Track withGain(double newGainDb) {
        return new Track(id, name, group, newGainDb, pan, muted, curve, clips);
    }

    public Track withPan(double newPan) {
        return new Track(id, name, group, gainDb, newPan, muted, curve, clips);
    }

    public Track withMuted(boolean newMuted) {
        return new Track(id, name, group, gainDb, pan, newMuted, curve, clips);
    }

    public Track withCurve(VolumeCurve newCurve) {
        return new Track(id, name, group, gainDb, pan, muted, newCurve, clips);
    }

    public Track tied(int newGroup) {
        return new Track(id, name, newGroup, gainDb, pan, muted, curve, clips);
    }

    public Track named(String newName) {
        return new Track(id, newName, group, gainDb, pan, muted, curve, clips);
    }

    public Track mapClips(UnaryOperator<Clip> change) {
        return withClips(clips.stream().map(change).toList());
    }

    /** Whether everything but the clips and the curve, which move in time, is the same. */
    public boolean sameSettings(Track other) {
        return withClips(List.of()).withCurve(VolumeCurve.NONE).equals(other.withClips(List.of()).withCurve(VolumeCurve.NONE));
    }
}

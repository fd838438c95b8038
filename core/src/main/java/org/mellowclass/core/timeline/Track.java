package org.mellowclass.core.timeline;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * A named voice or music in the timeline.
 *
 * @param id     unique in its timeline, never used again
 * @param group  tracks with the same number are tied: they are cut as one
 * @param gainDb a gain for the whole track
 * @param muted  left out of the mix
 * @param clips  ordered by their starts
 */
public record Track(long id, String name, int group, double gainDb, boolean muted, List<Clip> clips) {

    public Track {
        clips = clips.stream().sorted(Comparator.comparingLong(Clip::startFrame).thenComparingLong(Clip::id)).toList();
    }

    /** Where the last clip ends; 0 on an empty track. */
    public long endFrame() {
        return clips.stream().mapToLong(Clip::endFrame).max().orElse(0);
    }

    public Optional<Clip> clip(long clipId) {
        return clips.stream().filter(clip -> clip.id() == clipId).findFirst();
    }

    public Track withClips(List<Clip> newClips) {
        return new Track(id, name, group, gainDb, muted, newClips);
    }

    public Track withGain(double newGainDb) {
        return new Track(id, name, group, newGainDb, muted, clips);
    }

    public Track named(String newName) {
        return new Track(id, newName, group, gainDb, muted, clips);
    }

    public Track mapClips(UnaryOperator<Clip> change) {
        return withClips(clips.stream().map(change).toList());
    }

    /** Whether everything but the clips is the same. */
    public boolean sameSettings(Track other) {
        return withClips(List.of()).equals(other.withClips(List.of()));
    }
}

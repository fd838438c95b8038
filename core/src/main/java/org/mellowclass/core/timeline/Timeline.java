package org.mellowclass.core.timeline;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * An episode as it is arranged: tracks of clips. An immutable value; edits make new ones.
 *
 * @param tracks from top to bottom
 * @param nextId the id that the next new track or clip gets
 */
public record Timeline(List<Track> tracks, long nextId) {

    public Timeline {
        tracks = List.copyOf(tracks);
    }

    public static Timeline empty() {
        return new Timeline(List.of(), 1);
    }

    /** Where the last clip of any track ends. */
    public long endFrame() {
        return tracks.stream().mapToLong(Track::endFrame).max().orElse(0);
    }

    public Optional<Track> track(long trackId) {
        return tracks.stream().filter(track -> track.id() == trackId).findFirst();
    }

    public Set<Long> trackIds() {
        return tracks.stream().map(Track::id).collect(Collectors.toUnmodifiableSet());
    }

    Timeline mapTracks(UnaryOperator<Track> change, long newNextId) {
        return new Timeline(tracks.stream().map(change).toList(), newNextId);
    }
}

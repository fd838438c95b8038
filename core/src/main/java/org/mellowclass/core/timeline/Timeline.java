package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Frames;

/**
 * An episode as it is arranged: tracks of clips, and flags. An immutable value; edits make new ones.
 *
 * @param tracks from top to bottom
 * @param flags  ordered by their frames
 * @param nextId the id that the next new track, clip or flag gets
 */
public record Timeline(List<Track> tracks, List<Flag> flags, long nextId) {

    /** Three hours. */
    public static final long MOST_FRAMES = 3L * 60 * 60 * Frames.RATE;

    /** @throws TimelineTooLong if a clip ends or a flag stands behind the greatest length */
    public Timeline {
        tracks = List.copyOf(tracks);
        long last = Math.max(tracks.stream().mapToLong(Track::endFrame).max().orElse(0), flags.stream().mapToLong(Flag::frame).max().orElse(0));
        if (last > MOST_FRAMES) {
            throw new TimelineTooLong(last);
        }
        flags = flags.stream().sorted(Comparator.comparingLong(Flag::frame).thenComparingLong(Flag::id)).toList();
    }

    public static Timeline empty() {
        return new Timeline(List.of(), List.of(), 1);
    }

    /** Where the last clip of any track ends. */
    public long endFrame() {
        return tracks.stream().mapToLong(Track::endFrame).max().orElse(0);
    }

    /** The names of the tracks by their ids. */
    public Map<Long, String> trackNames() {
        return tracks.stream().collect(Collectors.toMap(Track::id, Track::name));
    }

    public Optional<Track> track(long trackId) {
        return tracks.stream().filter(track -> track.id() == trackId).findFirst();
    }

    /** The track on which a clip stands. */
    public Optional<Track> trackOf(long clipId) {
        return tracks.stream().filter(track -> track.clip(clipId).isPresent()).findFirst();
    }

    public Optional<Clip> clip(long clipId) {
        return tracks.stream().flatMap(track -> track.clips().stream()).filter(clip -> clip.id() == clipId).findFirst();
    }

    public Optional<Flag> flag(long flagId) {
        return flags.stream().filter(flag -> flag.id() == flagId).findFirst();
    }

    public Set<Long> trackIds() {
        return tracks.stream().map(Track::id).collect(Collectors.toUnmodifiableSet());
    }

    /** Some tracks, with all that are tied to them. */
    public Set<Long> tiedTo(Set<Long> trackIds) {
        Set<Integer> groups = tracks.stream().filter(track -> trackIds.contains(track.id())).map(Track::group).collect(Collectors.toSet());
        return tracks.stream().filter(track -> groups.contains(track.group())).map(Track::id).collect(Collectors.toUnmodifiableSet());
    }

    public Timeline mapTracks(UnaryOperator<Track> change, long newNextId) {
        return new Timeline(tracks.stream().map(change).toList(), flags, newNextId);
    }

    public Timeline mapClip(long clipId, UnaryOperator<Clip> change) {
        return mapTracks(track -> track.clip(clipId).isEmpty() ? track
                : track.mapClips(clip -> clip.id() == clipId ? change.apply(clip) : clip), nextId);
    }

    public Timeline withFlags(List<Flag> newFlags, long newNextId) {
        return new Timeline(tracks, newFlags, newNextId);
    }

    /** With every flag and curve where the map of its track takes it; flags whose moment is gone are gone. */
    public Timeline withTimeMoved(TimeMaps maps) {
        List<Flag> moved = new ArrayList<>();
        for (Flag flag : flags) {
            maps.of(flag.trackId()).map(flag.frame()).ifPresent(frame -> moved.add(flag.at(frame)));
        }
        return mapTracks(track -> {
            VolumeCurve curve = track.curve().moved(maps.of(track.id()));
            return curve.equals(track.curve()) ? track : track.withCurve(curve);
        }, nextId).withFlags(moved, nextId);
    }

    /** The clips that play a take, from whatever track. */
    public List<Clip> clipsOf(long takeId) {
        return tracks.stream().flatMap(track -> track.clips().stream()).filter(clip -> clip.source().takeId() == takeId).toList();
    }

    public Optional<Track> trackNamed(String name) {
        return tracks.stream().filter(track -> track.name().equals(name)).findFirst();
    }
}

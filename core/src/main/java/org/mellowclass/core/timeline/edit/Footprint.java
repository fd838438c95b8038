package org.mellowclass.core.timeline.edit;

import java.util.HashSet;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * What an edit touches, not what merely moves along: the frames of takes that lie in stretches of tracks, however the clips
 * are cut there.
 *
 * @param stretches of tracks, with whatever lies there or is free there
 * @param trackIds  tracks whose settings it changes
 * @param newTracks names of tracks that it makes
 * @param flagIds   flags that it changes or takes away
 * @param takeIds   takes whose clips it changes or makes wherever they are
 */
public record Footprint(Set<Stretch> stretches, Set<Long> trackIds, Set<String> newTracks, Set<Long> flagIds, Set<Long> takeIds) {

    /** A stretch of one track. */
    public record Stretch(long trackId, Span span) {

        /** Edits make fades of 5 ms beside what they touch, so stretches that are closer than two of them meet. */
        boolean meets(Stretch other) {
            return trackId == other.trackId && span.startFrame() < other.span.endFrame() + 2 * Fade.EDGE_FRAMES
                    && other.span.startFrame() < span.endFrame() + 2 * Fade.EDGE_FRAMES;
        }
    }

    public Footprint {
        stretches = Set.copyOf(stretches);
        trackIds = Set.copyOf(trackIds);
        newTracks = Set.copyOf(newTracks);
        flagIds = Set.copyOf(flagIds);
        takeIds = Set.copyOf(takeIds);
    }

    static final Footprint NOTHING = ofStretches(Set.of());

    static Footprint ofStretches(Set<Stretch> stretches) {
        return new Footprint(stretches, Set.of(), Set.of(), Set.of(), Set.of());
    }

    static Footprint ofStretch(long trackId, Span span) {
        return ofStretches(Set.of(new Stretch(trackId, span)));
    }

    static Footprint ofFlags(Set<Long> flagIds) {
        return new Footprint(Set.of(), Set.of(), Set.of(), flagIds, Set.of());
    }

    static Footprint ofTakes(Set<Long> takeIds) {
        return new Footprint(Set.of(), Set.of(), Set.of(), Set.of(), takeIds);
    }

    static Footprint ofTracks(Set<Long> trackIds) {
        return new Footprint(Set.of(), trackIds, Set.of(), Set.of(), Set.of());
    }

    /** A track with all that stands on it or ever will. */
    static Footprint ofWholeTrack(long trackId) {
        return ofTracks(Set.of(trackId)).and(ofStretch(trackId, new Span(0, Long.MAX_VALUE / 4)));
    }

    /** All that there is. */
    static Footprint ofEverything(Timeline timeline) {
        Footprint all = ofFlags(timeline.flags().stream().map(Flag::id).collect(Collectors.toSet()));
        for (Track track : timeline.tracks()) {
            all = all.and(ofWholeTrack(track.id())).and(ofName(track.name()))
                    .and(ofTakes(track.clips().stream().map(clip -> clip.source().takeId()).collect(Collectors.toSet())));
        }
        return all;
    }

    /** The stretch on which a clip stands. */
    static Footprint ofClip(Timeline timeline, long clipId) {
        return timeline.trackOf(clipId).map(track -> ofStretch(track.id(), track.clip(clipId).orElseThrow().span())).orElse(NOTHING);
    }

    /** The name of a track, which only one may have. */
    static Footprint ofName(String name) {
        return name == null ? NOTHING : ofNewTrack(name.strip());
    }

    static Footprint ofNewTrack(String name) {
        return new Footprint(Set.of(), Set.of(), Set.of(name), Set.of(), Set.of());
    }

    /** Everywhere where clips are other ones in two timelines whose time is the same. */
    static Footprint between(Timeline before, Timeline after) {
        Set<Stretch> stretches = new HashSet<>();
        Set<String> newTracks = new HashSet<>();
        for (Track now : after.tracks()) {
            Track was = before.track(now.id()).orElse(null);
            if (was == null) {
                newTracks.add(now.name());
                continue;
            }
            Stream.concat(now.clips().stream().filter(clip -> !was.clips().contains(clip)), was.clips().stream().filter(clip -> !now.clips().contains(clip)))
                    .forEach(clip -> stretches.add(new Stretch(now.id(), clip.span())));
        }
        return new Footprint(stretches, Set.of(), newTracks, Set.of(), Set.of());
    }

    /** The stretches on which clips of a take stand. */
    static Footprint ofClipsOf(Timeline timeline, long takeId) {
        Set<Stretch> stretches = new HashSet<>();
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.clips()) {
                if (clip.source().takeId() == takeId) {
                    stretches.add(new Stretch(track.id(), clip.span()));
                }
            }
        }
        return ofStretches(stretches).and(ofTakes(Set.of(takeId)));
    }

    Footprint and(Footprint other) {
        return new Footprint(both(stretches, other.stretches), both(trackIds, other.trackIds), both(newTracks, other.newTracks),
                both(flagIds, other.flagIds), both(takeIds, other.takeIds));
    }

    private static <T> Set<T> both(Set<T> one, Set<T> other) {
        return Stream.concat(one.stream(), other.stream()).collect(Collectors.toSet());
    }

    /** Whether two edits of one timeline touch nothing in common. */
    public boolean disjoint(Footprint other) {
        return trackIds.stream().noneMatch(other.trackIds::contains)
                && newTracks.stream().noneMatch(other.newTracks::contains)
                && flagIds.stream().noneMatch(other.flagIds::contains)
                && takeIds.stream().noneMatch(other.takeIds::contains)
                && stretches.stream().noneMatch(here -> other.stretches.stream().anyMatch(here::meets));
    }
}

package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Lays copies of clips onto the tracks they came from, from a frame on: in, with what stands there and later moving along on the
 * tied tracks, or over what stands there.
 *
 * @param copies     what is laid
 * @param frames     how long the copied stretch is, with the gaps at its ends
 * @param startFrame where it shall start
 * @param openedIds  tracks on which time opens for it; none to lay it over
 * @param alongIds   as those of {@link OpenUp}
 */
public record LayCopy(List<Copy> copies, long frames, long startFrame, Set<Long> openedIds, Set<Long> alongIds) implements Edit {

    /**
     * A clip of the copied stretch.
     *
     * @param clip counted from the start of the stretch
     */
    public record Copy(long trackId, Clip clip) {
    }

    public LayCopy {
        copies = List.copyOf(copies);
        openedIds = Set.copyOf(openedIds);
        alongIds = Set.copyOf(alongIds);
    }

    public LayCopy(List<Copy> copies, long frames, long startFrame, Set<Long> openedIds) {
        this(copies, frames, startFrame, openedIds, Set.of());
    }

    /** What is heard on some tracks of a timeline in a span, cut at its edges. */
    public static List<Copy> copies(Timeline timeline, Span span, Set<Long> trackIds) {
        List<Copy> copies = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.clips()) {
                if (trackIds.contains(track.id()) && clip.overlaps(span)) {
                    Clip from = clip.startFrame() < span.startFrame() ? clip.from(span.startFrame(), Fade.EDGE_FRAMES) : clip;
                    Clip copied = from.endFrame() > span.endFrame() ? from.until(span.endFrame(), Fade.EDGE_FRAMES) : from;
                    copies.add(new Copy(track.id(), copied.movedBy(-span.startFrame())));
                }
            }
        }
        return copies;
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        if (copies.isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        OnSpan.checkTracks(timeline, trackIds());
        Edited ready = openedIds.isEmpty() ? Edited.inPlace(cleared(timeline, takes)) : new OpenUp(startFrame, frames, openedIds, alongIds).opened(timeline);
        OnSpan.Ids ids = new OnSpan.Ids(ready.timeline());
        List<Track> tracks = ready.timeline().tracks().stream().map(track -> {
            List<Clip> clips = new ArrayList<>(track.clips());
            copies.stream().filter(copy -> copy.trackId == track.id()).forEach(copy -> clips.add(copy.clip.movedBy(startFrame).withId(ids.take())));
            return clips.size() == track.clips().size() ? track : track.withClips(clips);
        }).toList();
        return new Edited(new Timeline(tracks, ready.timeline().flags(), ids.next()), ready.maps());
    }

    private Timeline cleared(Timeline timeline, TakeFacts takes) {
        try {
            return new Clear(span(), trackIds()).applyTo(timeline, takes).timeline();
        } catch (EditRefused free) {
            if (free.needless()) {
                return timeline;
            }
            throw free;
        }
    }

    private Span span() {
        return new Span(startFrame, startFrame + frames);
    }

    private Set<Long> trackIds() {
        return copies.stream().map(Copy::trackId).collect(Collectors.toSet());
    }

    private Set<Long> allIds() {
        return Stream.concat(openedIds.stream(), trackIds().stream()).collect(Collectors.toSet());
    }

    /** Everything before it too: it must mean the same moment on all of its tracks. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        long end = openedIds.isEmpty() ? startFrame + frames : startFrame + 1;
        Set<Footprint.Stretch> stretches = allIds().stream().map(id -> new Footprint.Stretch(id, new Span(0, end))).collect(Collectors.toSet());
        return Footprint.ofStretches(stretches).and(Footprint.ofTakes(copies.stream().map(copy -> copy.clip.source().takeId()).collect(Collectors.toSet())));
    }

    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        if (!meanwhile.head().trackIds().containsAll(allIds())) {
            throw Meanwhile.changed(Set.of());
        }
        if (openedIds.isEmpty()) {
            trackIds().forEach(id -> meanwhile.requireSame(id, span(), Set.of()));
        }
        Set<Long> along = new HashSet<>(alongIds);
        if (!openedIds.isEmpty()) {
            along.addAll(meanwhile.newlyTiedTo(openedIds));
        }
        return Optional.of(new LayCopy(copies, frames, meanwhile.oneMoment(allIds(), startFrame), openedIds, along));
    }
}

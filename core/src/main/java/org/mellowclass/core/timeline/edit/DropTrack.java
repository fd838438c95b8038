package org.mellowclass.core.timeline.edit;

import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Takes a track off the page with its clips and flags. Its takes stay in the take list. */
public record DropTrack(long trackId) implements Edit {

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        OnSpan.checkTracks(timeline, Set.of(trackId));
        return Edited.inPlace(new Timeline(timeline.tracks().stream().filter(track -> track.id() != trackId).toList(),
                timeline.flags().stream().filter(flag -> flag.trackId() != trackId).toList(), timeline.nextId()));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofEverything(timeline);
    }

    /** If somebody has worked on it meanwhile, it stays. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Track was = meanwhile.base().track(trackId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_TRACK));
        Optional<Track> now = meanwhile.head().track(trackId);
        if (now.isEmpty()) {
            return Optional.empty();
        }
        Set<Long> before = was.clips().stream().map(Clip::id).collect(Collectors.toSet());
        Set<Long> newer = now.get().clips().stream().map(Clip::id).filter(id -> !before.contains(id)).collect(Collectors.toSet());
        if (!now.get().sameSettings(was) || !newer.isEmpty()) {
            throw Meanwhile.changed(newer);
        }
        if (was.endFrame() > 0) {
            meanwhile.requireSame(trackId, new Span(0, was.endFrame()), Set.of());
        }
        return Optional.of(this);
    }
}

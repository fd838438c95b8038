package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.core.treatment.Trick;

/**
 * Plays a voice trick on a passage of one track, instead of any that is there, or takes tricks back. Each clip that it meets plays its own stretch
 * by it; where that becomes longer or shorter, time opens or closes behind the passage on the tied tracks. Rooms are left as they are.
 *
 * @param kind     null to hear it as it was said
 * @param tiedIds  tracks that go along; the passage's own is always among them
 * @param alongIds as those of {@link OpenUp}
 */
public record PlayTrick(long trackId, Span passage, Trick.Kind kind, double amount, Set<Long> tiedIds, Set<Long> alongIds) implements Edit {

    public PlayTrick {
        tiedIds = Stream.concat(tiedIds.stream(), Stream.of(trackId)).collect(Collectors.toUnmodifiableSet());
        alongIds = Set.copyOf(alongIds);
    }

    public PlayTrick(long trackId, Span passage, Trick.Kind kind, double amount, Set<Long> tiedIds) {
        this(trackId, passage, kind, amount, tiedIds, Set.of());
    }

    /** What a clip plays within the passage from now on, from its first frame. */
    private record Played(Source source, long sourceFrame, long frames) {
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        OnSpan.check(timeline, passage, Set.of(trackId));
        OnSpan.checkTracks(timeline, tiedIds);
        if (kind != null && !kind.takes(amount)) {
            throw new EditRefused(EditRefused.Reason.AMOUNT_OUT_OF_RANGE);
        }
        if (kind != null && passage.frames() > Trick.MOST_FRAMES) {
            throw new EditRefused(EditRefused.Reason.TRICK_TOO_LONG);
        }
        Track track = timeline.track(trackId).orElseThrow();
        Edited fitting = refit(track).fitted(timeline);
        OnSpan.Ids ids = new OnSpan.Ids(fitting.timeline());
        Track played = played(track, ids);
        if (played.equals(track)) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        Timeline ready = fitting.timeline().mapTracks(other -> other.id() == trackId ? played.withCurve(other.curve()) : other, ids.next());
        return new Edited(ready, fitting.maps());
    }

    private Refit refit(Track track) {
        long longer = track.clips().stream().filter(clip -> clip.overlaps(passage)).mapToLong(clip -> played(clip).frames - within(clip).frames()).sum();
        return new Refit(passage, longer, tiedIds, alongIds);
    }

    private Span within(Clip clip) {
        return new Span(Math.max(clip.startFrame(), passage.startFrame()), Math.min(clip.endFrame(), passage.endFrame()));
    }

    private Played played(Clip clip) {
        Span within = within(clip);
        long from = clip.sourceFrame() + within.startFrame() - clip.startFrame();
        Treatment before = clip.source().treatment();
        if (!(clip.source() instanceof TakeSource) || kind == null && before.step(Trick.class).isEmpty()) {
            return new Played(clip.source(), from, within.frames());
        }
        long start = before.toTake(from);
        Span said = new Span(start, Math.max(start + 1, before.toTake(from + within.frames())));
        if (kind != null) {
            Treatment tricked = before.with(new Trick(kind, amount, said));
            return new Played(clip.source().treated(tricked), 0, tricked.frames(said.endFrame()));
        }
        Treatment plain = before.without(Trick.class);
        long first = plain.fromTake(said.startFrame());
        return new Played(clip.source().treated(plain), first, Math.max(1, plain.fromTake(said.endFrame()) - first));
    }

    private Track played(Track track, OnSpan.Ids ids) {
        long longer = refit(track).longer();
        List<Clip> clips = new ArrayList<>();
        long moved = 0;
        for (Clip clip : track.clips()) {
            boolean stays = clip.endFrame() <= passage.startFrame()
                    || longer == 0 && clip.overlaps(passage) && played(clip).source.equals(clip.source());
            if (stays) {
                clips.add(clip);
            } else if (clip.startFrame() >= passage.endFrame()) {
                clips.add(clip.movedBy(longer));
            } else {
                Span within = within(clip);
                Played played = played(clip);
                boolean starts = within.startFrame() == clip.startFrame();
                boolean ends = within.endFrame() == clip.endFrame();
                if (!starts) {
                    clips.add(clip.until(within.startFrame(), Fade.EDGE_FRAMES));
                }
                clips.add(new Clip(starts ? clip.id() : ids.take(), played.source, within.startFrame() + moved, played.sourceFrame, played.frames, clip.gainDb(),
                        starts ? inside(clip.fadeIn()) : Fade.EDGE, ends ? inside(clip.fadeOut()) : Fade.EDGE));
                if (!ends) {
                    clips.add(clip.from(within.endFrame(), Fade.EDGE_FRAMES).withId(ids.take()).movedBy(longer));
                }
                moved += played.frames - within.frames();
            }
        }
        return track.withClips(clips);
    }

    /** There is nothing of a trick beyond its stretch. */
    private static Fade inside(Fade fade) {
        return fade.overFrames() > 0 ? Fade.EDGE : fade;
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        OnSpan.check(timeline, passage, Set.of(trackId));
        return refit(timeline.track(trackId).orElseThrow()).footprint();
    }

    /** A step on a take that came meanwhile does not matter; another trick there does. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Refit now = refit(meanwhile.base().track(trackId).orElseThrow()).rebased(trackId, meanwhile);
        return Optional.of(new PlayTrick(trackId, now.passage(), kind, amount, tiedIds, now.alongIds()));
    }
}

package org.mellowclass.core.timeline;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;

/**
 * Lays a take in step with another one that recorded the same conversation: its frame 0 stands where frame {@code offset} of
 * the first stands. The first stays where it is; only if the second would begin before the page does, both move to the right.
 * One that is not on the page yet is laid onto its track.
 */
public record LayInStep(Laid first, Laid second, long offset) implements Edit {

    /**
     * A take of the two.
     *
     * @param span what is heard of it where it is not on the page yet
     */
    public record Laid(long takeId, Span span, String trackName) {
    }

    @Override
    public Edited applyTo(Timeline timeline) {
        List<Clip> ofSecond = clips(timeline, second);
        List<Clip> ofFirst = clips(timeline, first);
        if (ofSecond.size() > 1) {
            throw new EditRefused(EditRefused.Reason.TAKE_IN_PIECES, ids(ofSecond));
        }
        Span firstHeard = heard(ofFirst, first);
        Span secondHeard = heard(ofSecond, second);
        long zeroOfFirst = ofFirst.isEmpty() ? 0 : ofFirst.get(0).startFrame() - ofFirst.get(0).sourceFrame();
        long wanted = zeroOfFirst + offset + secondHeard.startFrame();
        long right = Math.max(0, -wanted);
        if (right > 0 && ofFirst.size() > 1) {
            throw new EditRefused(EditRefused.Reason.TAKE_IN_PIECES, ids(ofFirst));
        }
        boolean stays = !ofFirst.isEmpty() && right == 0;
        if (stays && !ofSecond.isEmpty() && ofSecond.get(0).startFrame() == wanted) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        Timeline now = without(timeline, second);
        if (!stays) {
            now = laid(without(now, first), timeline, first, ofFirst, firstHeard, zeroOfFirst + firstHeard.startFrame() + right);
        }
        return Edited.inPlace(laid(now, timeline, second, ofSecond, secondHeard, wanted + right));
    }

    private static Span heard(List<Clip> clips, Laid laid) {
        return clips.isEmpty() ? laid.span : new Span(clips.get(0).sourceFrame(), clips.get(0).sourceFrame() + clips.get(0).frames());
    }

    private static Timeline laid(Timeline now, Timeline before, Laid laid, List<Clip> clips, Span heard, long startFrame) {
        Optional<Clip> clip = clips.stream().findFirst();
        String track = clip.flatMap(it -> before.trackOf(it.id())).map(Track::name).orElse(laid.trackName);
        return new LaySpan(laid.takeId, heard, track, startFrame, clip.map(Clip::gainDb).orElse(0.0)).applyTo(now).timeline();
    }

    private static Timeline without(Timeline timeline, Laid laid) {
        return timeline.mapTracks(track -> track.withClips(track.clips().stream().filter(clip -> !of(laid, clip)).toList()), timeline.nextId());
    }

    private static List<Clip> clips(Timeline timeline, Laid laid) {
        return timeline.tracks().stream().flatMap(track -> track.clips().stream()).filter(clip -> of(laid, clip)).toList();
    }

    private static boolean of(Laid laid, Clip clip) {
        return clip.source() instanceof TakeSource && clip.source().takeId() == laid.takeId;
    }

    private static Set<Long> ids(List<Clip> clips) {
        return clips.stream().map(Clip::id).collect(Collectors.toSet());
    }

    @Override
    public Footprint footprint(Timeline timeline) {
        return Footprint.ofClips(ids(clips(timeline, first))).and(Footprint.ofClips(ids(clips(timeline, second))));
    }

    @Override
    public LayInStep shiftedBy(long frames) {
        return this;
    }
}

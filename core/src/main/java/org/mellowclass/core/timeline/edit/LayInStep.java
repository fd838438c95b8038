package org.mellowclass.core.timeline.edit;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.Treatment;

/**
 * Lays a take in step with another one that recorded the same conversation: its frame 0 stands where frame {@code offset} of
 * the first stands. The first stays where it is; only if the second would begin before the page does, both move to the right.
 * One that is not on the page yet is laid onto its track.
 *
 * @param longerPpm how much longer the second becomes by the first one's clock, in millionths; 0 to leave its clock as it is
 */
public record LayInStep(Laid first, Laid second, long offset, double longerPpm) implements Edit {

    /**
     * A take of the two.
     *
     * @param span what is heard of it where it is not on the page yet
     */
    public record Laid(long takeId, Span span, String trackName) {
    }

    /** A take as it lies, or as it would be laid. */
    private record Lying(TakeSource source, Span heard, String trackName, double gainDb) {

        static Lying of(Timeline timeline, Laid laid) {
            return clips(timeline, laid).stream().findFirst().map(clip -> new Lying((TakeSource) clip.source(),
                    new Span(clip.sourceFrame(), clip.sourceFrame() + clip.frames()), timeline.trackOf(clip.id()).orElseThrow().name(), clip.gainDb()))
                    .orElse(new Lying(new TakeSource(laid.takeId), laid.span, laid.trackName, 0));
        }

        Lying byClock(double longerPpm) {
            Treatment from = source.treatment();
            Treatment to = from.with(new CorrectClock(longerPpm));
            return new Lying(source.treated(to), new Span(to.fromTake(from.toTake(heard.startFrame())), to.fromTake(from.toTake(heard.endFrame()))),
                    trackName, gainDb);
        }

        Timeline laidOnto(Timeline timeline, long startFrame, TakeFacts takes) {
            return new LaySpan(source, heard, trackName, startFrame, gainDb, List.of()).applyTo(timeline, takes).timeline();
        }
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        List<Clip> ofSecond = clips(timeline, second);
        List<Clip> ofFirst = clips(timeline, first);
        if (ofSecond.size() > 1) {
            throw new EditRefused(EditRefused.Reason.TAKE_IN_PIECES, ids(ofSecond));
        }
        Lying one = Lying.of(timeline, first);
        Lying before = Lying.of(timeline, second);
        Lying other = longerPpm == 0 ? before : before.byClock(longerPpm);
        long zeroOfFirst = ofFirst.isEmpty() ? 0 : ofFirst.get(0).startFrame() - ofFirst.get(0).sourceFrame();
        long wanted = zeroOfFirst + offset + other.heard.startFrame();
        long right = Math.max(0, -wanted);
        if (right > 0 && ofFirst.size() > 1) {
            throw new EditRefused(EditRefused.Reason.TAKE_IN_PIECES, ids(ofFirst));
        }
        boolean stays = !ofFirst.isEmpty() && right == 0;
        if (stays && !ofSecond.isEmpty() && ofSecond.get(0).startFrame() == wanted && other.equals(before)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        Timeline now = without(timeline, second);
        if (!stays) {
            now = one.laidOnto(without(now, first), zeroOfFirst + one.heard.startFrame() + right, takes);
        }
        return Edited.inPlace(other.laidOnto(now, wanted + right, takes));
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

    /** The time of all tracks: where the one lands depends on where the other has gone. */
    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        Timeline after = applyTo(timeline, takes).timeline();
        Span all = new Span(0, Math.max(timeline.endFrame(), after.endFrame()));
        return Footprint.ofStretches(timeline.trackIds().stream().map(id -> new Footprint.Stretch(id, all)).collect(Collectors.toSet()))
                .and(Footprint.between(timeline, after)).and(Footprint.ofTakes(Set.of(first.takeId, second.takeId)));
    }

    /** Both must lie as they lay. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Set<Long> both = new HashSet<>(ids(clips(meanwhile.base(), first)));
        both.addAll(ids(clips(meanwhile.base(), second)));
        meanwhile.requireThere(both);
        meanwhile.requireSameWhereDifferent(applyTo(meanwhile.base(), meanwhile.takes()).timeline(), both);
        return Optional.of(this);
    }
}

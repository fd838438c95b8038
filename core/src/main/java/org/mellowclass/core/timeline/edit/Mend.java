package org.mellowclass.core.timeline.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

import org.mellowclass.core.dsp.PlaceMender;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.treatment.MendPlaces;
import org.mellowclass.core.treatment.Treatment;

/**
 * Mends places of takes, such as clicks, wherever the takes play: a place that is mended stays so in every copy.
 *
 * @param places by take, in the take's frames
 */
public record Mend(Map<Long, List<Span>> places) implements Edit {

    /** So many clicks are not mended one by one. */
    public static final int MOST_PLACES = 100;

    public Mend {
        Map<Long, List<Span>> inOrder = new TreeMap<>();
        places.forEach((takeId, spans) -> inOrder.put(takeId, List.copyOf(spans)));
        places = inOrder;
    }

    /** What is heard in a span on some tracks. */
    public static Mend heard(Timeline timeline, Span span, Set<Long> trackIds) {
        OnSpan.check(timeline, span, trackIds);
        Map<Long, List<Span>> places = new TreeMap<>();
        for (long trackId : trackIds) {
            for (Clip clip : timeline.track(trackId).orElseThrow().clips()) {
                if (clip.overlaps(span) && clip.source() instanceof TakeSource) {
                    Treatment treatment = clip.source().treatment();
                    long from = clip.sourceFrame() + Math.max(0, span.startFrame() - clip.startFrame());
                    long to = clip.sourceFrame() + Math.min(clip.frames(), span.endFrame() - clip.startFrame());
                    places.computeIfAbsent(clip.source().takeId(), any -> new ArrayList<>()).add(new Span(treatment.toTake(from), Math.max(treatment.toTake(from) + 1, treatment.toTake(to))));
                }
            }
        }
        if (places.isEmpty()) {
            throw new EditRefused(EditRefused.Reason.NOTHING_THERE);
        }
        return new Mend(places);
    }

    @Override
    public Edited applyTo(Timeline timeline, TakeFacts takes) {
        if (places.keySet().stream().allMatch(takeId -> timeline.clipsOf(takeId).isEmpty())) {
            throw new EditRefused(EditRefused.Reason.NO_SUCH_CLIP);
        }
        Timeline mended = timeline.mapTracks(track -> track.mapClips(clip -> clip.withSource(mended(clip.source()))), timeline.nextId());
        if (mended.equals(timeline)) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
        return Edited.inPlace(mended);
    }

    private Source mended(Source source) {
        List<Span> more = places.get(source.takeId());
        if (more == null) {
            return source;
        }
        Treatment treatment = source.treatment();
        MendPlaces all = treatment.step(MendPlaces.class).orElse(new MendPlaces(List.of())).and(more);
        if (all.places().stream().anyMatch(place -> place.frames() > PlaceMender.LONGEST) || all.places().size() > MOST_PLACES) {
            throw new EditRefused(EditRefused.Reason.TOO_MUCH_TO_MEND);
        }
        return source.treated(treatment.with(all));
    }

    @Override
    public Footprint footprint(Timeline timeline, TakeFacts takes) {
        return Footprint.ofTakes(places.keySet());
    }

    /** Whatever else became of the takes meanwhile, their places are the same. */
    @Override
    public Optional<Edit> rebased(Meanwhile meanwhile) {
        Map<Long, List<Span>> left = new TreeMap<>(places);
        left.keySet().removeIf(takeId -> meanwhile.head().clipsOf(takeId).isEmpty());
        return left.isEmpty() ? Optional.empty() : Optional.of(new Mend(left));
    }
}

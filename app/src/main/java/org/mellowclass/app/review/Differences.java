package org.mellowclass.app.review;

import java.util.List;
import java.util.Map;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.core.review.Change;
import org.mellowclass.core.review.Changes;
import org.mellowclass.core.review.SameWords;
import org.mellowclass.core.review.SharedSound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What changed between two hand-ins of an episode, computed of their timelines, which never change. */
@Service
public class Differences {

    private final Bench bench;
    private final TakeShelf takes;
    private final Cache<List<String>, Difference> known = Caffeine.newBuilder().maximumSize(200).build();

    Differences(Bench bench, TakeShelf takes) {
        this.bench = bench;
        this.takes = takes;
    }

    /**
     * @param changes in the order of their places in the later one
     * @param anew    what of the later one sounds otherwise than anything in the earlier one
     */
    public record Difference(List<Change> changes, List<Span> anew) {

        static final Difference NONE = new Difference(List.of(), List.of());
    }

    /** Where what is said in the later one was said in the earlier one; both let through by {@link HandIns#find}. */
    @Transactional(readOnly = true)
    public List<SameWords.Stretch> sameWords(HandIn earlier, HandIn later) {
        Map<Long, Take> ready = takes.ready(later.episodeId());
        return SameWords.of(bench.timeline(earlier.timelineHash()), bench.timeline(later.timelineHash()), take -> ready.containsKey(take) && ready.get(take).origin() != Take.Origin.SHELF);
    }

    /** Between two hand-ins that {@link HandIns#find} has let through. */
    @Transactional(readOnly = true)
    public Difference between(HandIn earlier, HandIn later) {
        return known.get(List.of(earlier.timelineHash(), later.timelineHash()), any -> {
            Timeline was = bench.timeline(earlier.timelineHash());
            Timeline is = bench.timeline(later.timelineHash());
            return new Difference(Changes.between(was, is), SharedSound.of(was, is).anew());
        });
    }
}

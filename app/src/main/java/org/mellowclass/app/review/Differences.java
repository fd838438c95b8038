package org.mellowclass.app.review;

import java.util.List;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.core.review.Change;
import org.mellowclass.core.review.Changes;
import org.mellowclass.core.review.SharedSound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What changed between two hand-ins of an episode, computed of their timelines, which never change. */
@Service
public class Differences {

    private final Bench bench;
    private final Cache<List<String>, Difference> known = Caffeine.newBuilder().maximumSize(200).build();

    Differences(Bench bench) {
        this.bench = bench;
    }

    /**
     * @param changes in the order of their places in the later one
     * @param anew    what of the later one sounds otherwise than anything in the earlier one
     */
    public record Difference(List<Change> changes, List<Span> anew) {

        static final Difference NONE = new Difference(List.of(), List.of());
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

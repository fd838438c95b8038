package org.mellowclass.app.bench;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

import org.mellowclass.app.live.LiveEvents;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** The newest measured finish of each episode. */
@Service
@Transactional
public class Finishes {

    private final FinishMapper finishes;
    private final LiveEvents live;
    private final Clock clock;

    Finishes(FinishMapper finishes, LiveEvents live, Clock clock) {
        this.finishes = finishes;
        this.live = live;
        this.clock = clock;
    }

    /** @param revision whose mix was measured; 0 if none was */
    public record Newest(Finish finish, long revision) {
    }

    /** What the bench of an episode that has been let through plays through; each edit asks, and one statement needs no transaction around it. */
    @Transactional(propagation = Propagation.SUPPORTS, readOnly = true)
    public Newest newest(long episodeId) {
        return finishes.find(episodeId).map(row -> new Newest(row.finish(), row.revisionSeq())).orElse(new Newest(Finish.FIRST, 0));
    }

    /** Keeps what was measured of a revision; open pages hear of it, and play through it from the next press on. */
    public void keep(long episodeId, long revision, Finish finish) {
        boolean other = !newest(episodeId).finish().equals(finish);
        finishes.put(episodeId, revision, finish, clock.instant());
        if (other) {
            live.changed(Bench.topic(episodeId), revision);
        }
    }

    /**
     * What was read of a revision.
     *
     * @param report as {@link #keepReport} was given it
     */
    public record Read(long revision, String report) {
    }

    /** The newest sound check; empty until the first is made. */
    @Transactional(readOnly = true)
    public Optional<Read> read(long episodeId) {
        return finishes.report(episodeId).map(row -> new Read(row.reportSeq(), row.report()));
    }

    /** The episodes whose newest revision was made since then, and has not been read. */
    @Transactional(readOnly = true)
    public List<Long> unread(Instant since) {
        return finishes.unread(since);
    }

    /** The newest sound checks of the episodes of a class that has been let through, by episode. */
    @Transactional(readOnly = true)
    public Map<Long, Read> readOfClass(long classId) {
        return finishes.reportsOfClass(classId).stream().collect(Collectors.toMap(FinishMapper.ClassRow::episodeId, row -> new Read(row.reportSeq(), row.report())));
    }

    /** Keeps the sound check of a revision, unless there is one of a newer; open pages hear of it. */
    public void keepReport(long episodeId, long revision, String report) {
        finishes.keepReport(episodeId, revision, report);
        live.changed(Bench.topic(episodeId), revision);
    }
}

package org.mellowclass.app.review;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.BenchViews;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.review.ListeningMap;
import org.mellowclass.core.sound.Span;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What people have really heard of hand-ins: their pages tell it while they play, and nobody can tell more than the time allows. */
@Service
@Transactional
public class Listening {

    private static final int LONGEST_REASON = 300;
    private static final int MOST_SPANS = 20_000;
    /** Over so long a time, what somebody has heard is added up; what was told late may come together. */
    private static final Duration WINDOW = Duration.ofMinutes(2);
    private static final Duration LATE = Duration.ofSeconds(40);

    private final ListeningMapper listening;
    private final HandInMapper handIns;
    private final HandIns found;
    private final Bench bench;
    private final Access access;
    private final Clock clock;

    Listening(ListeningMapper listening, HandInMapper handIns, HandIns found, Bench bench, Access access, Clock clock) {
        this.listening = listening;
        this.handIns = handIns;
        this.found = found;
        this.bench = bench;
        this.access = access;
        this.clock = clock;
    }

    /**
     * Somebody has played a stretch of a hand-in.
     *
     * @param clientId  unique for the stretch, so that telling it twice is harmless
     * @param elapsedMs how long it took
     */
    public void heard(Person viewer, long handInId, String clientId, long startFrame, long endFrame, long elapsedMs) {
        HandIn handIn = found.find(viewer, handInId);
        String id = BenchViews.clientId(clientId);
        long end = Math.min(endFrame, handIn.frames());
        if (startFrame < 0 || end <= startFrame || elapsedMs < 0 || elapsedMs > WINDOW.toMillis()) {
            throw new IllegalArgumentException("nothing can be heard from " + startFrame + " to " + endFrame + " in " + elapsedMs + " ms");
        }
        Instant now = clock.instant();
        long lately = listening.framesSince(viewer.id(), now.minus(WINDOW), id);
        boolean possible = ListeningMap.possible(end - startFrame, elapsedMs)
                && ListeningMap.possible(lately + end - startFrame, WINDOW.plus(LATE).toMillis()) && listening.count(handInId, viewer.id()) < MOST_SPANS;
        if (!possible) {
            throw Refusal.unfit("listening.TOO_FAST");
        }
        listening.add(handInId, viewer.id(), id, startFrame, end, now);
    }

    /** What a viewer, whom {@link HandIns#find} has let through, has heard of a hand-in. */
    @Transactional(readOnly = true)
    public ListeningMap map(Person viewer, HandIn handIn) {
        return map(handIn, listening.ofPerson(handIn.episodeId(), viewer.id()));
    }

    /** What the teachers have heard of it, all together. */
    @Transactional(readOnly = true)
    public ListeningMap ofTeachers(HandIn handIn) {
        return map(handIn, listening.ofTeachers(handIn.episodeId()));
    }

    private ListeningMap map(HandIn handIn, List<ListeningMapper.Row> rows) {
        List<ListeningMap.Played> played = new ArrayList<>();
        handIns.ofEpisode(handIn.episodeId()).stream().filter(other -> other.number() <= handIn.number()).sorted(Comparator.comparingInt(HandIn::number)).forEach(other -> {
            List<Span> spans = rows.stream().filter(row -> row.handInId() == other.id()).map(row -> new Span(row.startFrame(), row.endFrame())).toList();
            // hand-ins before the first that was heard say nothing
            if (!played.isEmpty() || !spans.isEmpty() || other.id() == handIn.id()) {
                played.add(new ListeningMap.Played(bench.timeline(other.timelineHash()), spans));
            }
        });
        return ListeningMap.of(played);
    }

    /** Why a hand-in may go on air though not all of it was heard; the reason is kept with it. */
    public void letUnheardThrough(Person viewer, long handInId, String reason) {
        HandIn handIn = found.find(viewer, handInId);
        access.hold(access.taughtEpisode(viewer, handIn.episodeId()).id());
        listening.letUnheardThrough(handInId, Fields.required(reason, LONGEST_REASON, "air.REASON"));
    }
}

package org.mellowclass.app.lineup;

import java.io.IOException;
import java.time.Clock;
import java.util.HashSet;
import java.util.List;
import java.util.Map;

import com.github.kagkarlsson.scheduler.task.Task;
import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeReady;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.measure.LineUp;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.LayInStep;
import org.mellowclass.core.treatment.Treatment;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Lines takes of one conversation up: measured in the background, looked at, and laid in step. */
@Service
public class LineUps {

    static final String KIND = "line-up";
    private static final int MOST_TAKES = 6;
    /** A clock that is wrong by less than this over the whole take is not corrected. */
    private static final long NOT_WORTH_CORRECTING = Frames.ofMillis(2);

    private static final Logger LOG = LoggerFactory.getLogger(LineUps.class);

    private final LineUpMapper rows;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final Recording recording;
    private final PlacedTakes placed;
    private final Access access;
    private final Jobs jobs;
    private final LiveEvents live;
    private final Clock clock;
    private final TransactionTemplate transaction;

    LineUps(LineUpMapper rows, TakeShelf takes, TakeSounds sounds, Recording recording, PlacedTakes placed, Access access, Jobs jobs, LiveEvents live, Clock clock,
            TransactionTemplate transaction) {
        this.rows = rows;
        this.takes = takes;
        this.sounds = sounds;
        this.recording = recording;
        this.placed = placed;
        this.access = access;
        this.jobs = jobs;
        this.live = live;
        this.clock = clock;
        this.transaction = transaction;
    }

    @Configuration
    static class Schedule {
        @Bean
        Task<?> lineUpJob(LineUps lineUps, Jobs jobs) {
            return jobs.lookedOnAt(KIND, lineUps::measure, lineUps::giveUp);
        }
    }

    /** Asks for takes of an episode to be compared with the first of them; pairs that were compared already are not again. */
    @Transactional
    public void ask(Person viewer, long episodeId, List<Long> takeIds) {
        access.ownEpisode(viewer, episodeId);
        Map<Long, Take> ready = takes.ready(episodeId);
        if (takeIds.size() < 2 || takeIds.size() > MOST_TAKES || new HashSet<>(takeIds).size() < takeIds.size() || !ready.keySet().containsAll(takeIds)) {
            throw Refusal.unfit("lineup.CHOOSE_TWO");
        }
        takeIds.stream().skip(1).forEach(second -> ask(episodeId, takeIds.get(0), second, false, viewer.id()));
    }

    private void ask(long episodeId, long first, long second, boolean laysItself, long askedBy) {
        rows.add(episodeId, first, second, laysItself, askedBy, clock.instant());
        jobs.ask(KIND, rows.ofPair(first, second).orElseThrow().id(), Jobs.ofEpisode(episodeId));
    }

    /** Takes that were begun on one word are lined up as soon as the last of them is there. */
    @EventListener
    @Transactional
    public void ready(TakeReady take) {
        List<Take> together = recording.together(take.takeId());
        together.stream().skip(1).forEach(second -> ask(take.episodeId(), together.get(0).id(), second.id(), true, second.authorId()));
    }

    /** Everything that was compared in an episode, the newest first. */
    public List<LinedUp> ofEpisode(Person viewer, long episodeId) {
        return rows.ofEpisode(access.episode(viewer, episodeId).id());
    }

    void measure(long id) throws IOException {
        LinedUp pair = rows.find(id).orElseThrow();
        if (pair.state() != LinedUp.State.MEASURING) {
            return;
        }
        if (!takes.ready(pair.episodeId()).keySet().containsAll(List.of(pair.firstTake(), pair.secondTake()))) {
            // one of them was erased meanwhile: what is left of it cannot be compared
            rows.refused(id, LineUp.Reason.TOO_SHORT, null);
            return;
        }
        LineUp.Result result;
        try (RandomAccessSound first = sounds.open(pair.firstTake(), Treatment.NONE); RandomAccessSound second = sounds.open(pair.secondTake(), Treatment.NONE)) {
            result = LineUp.of(first, second);
        }
        if (!result.matched()) {
            rows.refused(id, result.reason(), result.confidence());
        } else {
            rows.matched(id, Math.round(result.offsetSeconds() * Frames.RATE), result.driftPpm().isPresent() ? result.driftPpm().getAsDouble() : null,
                    result.confidence());
            if (pair.laysItself()) {
                layUnasked(id);
            }
        }
        live.episodeChanged(pair.episodeId());
    }

    void giveUp(long id) {
        rows.failed(id);
        live.episodeChanged(rows.find(id).orElseThrow().episodeId());
    }

    /** Where it cannot be done, the page says so, and what was recorded lies where it landed. */
    private void layUnasked(long id) {
        try {
            transaction.executeWithoutResult(status -> {
                LinedUp pair = rows.lock(id).orElseThrow();
                lay(pair, pair.askedBy());
            });
        } catch (EditRefused | NotFound refused) {
            LOG.info("line-up {} is not laid by itself: {}", id, refused.getMessage());
        }
    }

    /** Lays the second of two takes in step with the first; corrects its clock where that is heard. */
    @Transactional
    public void lay(Person viewer, long episodeId, long id) {
        access.ownEpisode(viewer, episodeId);
        lay(rows.lock(id).filter(it -> it.episodeId() == episodeId && it.state() == LinedUp.State.MATCHED).orElseThrow(NotFound::new), viewer.id());
    }

    private void lay(LinedUp pair, long authorId) {
        Map<Long, Take> ready = takes.ready(pair.episodeId());
        Take first = ready.get(pair.firstTake());
        Take second = ready.get(pair.secondTake());
        if (first == null || second == null) {
            throw new NotFound();
        }
        boolean worthIt = pair.driftPpm() != null && Math.abs(pair.driftPpm() / 1e6 * second.frames()) >= NOT_WORTH_CORRECTING;
        double longerPpm = worthIt ? pair.driftPpm() : 0;
        placed.layInStep(authorId, pair.episodeId(), "line-up-" + pair.id(), new LayInStep(laid(first), laid(second), pair.offsetFrames(), longerPpm));
        rows.laid(pair.id(), clock.instant());
    }

    private static LayInStep.Laid laid(Take take) {
        return new LayInStep.Laid(take.id(), take.spoken(), take.trackName());
    }
}

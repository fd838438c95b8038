package org.mellowclass.app.soundcheck;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.kagkarlsson.scheduler.task.Task;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Finish;
import org.mellowclass.app.bench.Finishes;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.bench.TimelineChanged;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.sounds.SoundNotMade;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.render.BlockPasses;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.soundcheck.HouseSound;
import org.mellowclass.core.soundcheck.MixCheck;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Measures what finishing an episode's mix would take, some seconds after its last edit, so that the bench plays as loud as the hand-in will be;
 * and reads the sound check of it.
 * Which episodes wait is kept in memory; a process that starts looks for those that its predecessor has left.
 */
@Component
class FinishMeasuring {

    static final String KIND = "finish";
    private static final Duration AFTER_THE_LAST_EDIT = Duration.ofSeconds(4);
    /** Somebody waits for other jobs, and for these nobody does: but not for ever. */
    private static final Duration AT_THE_LATEST = Duration.ofMinutes(1);
    /** Pages that rest for longer are read when somebody works on them. */
    private static final Duration LATELY = Duration.ofDays(7);
    /** All take one turn, so that a thread is always left for others. */
    private static final String TURN = "finishes";

    private final Map<Long, Instant> waiting = new ConcurrentHashMap<>();
    private final MeasuredSeconds measured = new MeasuredSeconds();
    private final Bench bench;
    private final Finishes finishes;
    private final TakeSounds sounds;
    private final SoundChecks checks;
    private final Jobs jobs;
    private final Clock clock;

    FinishMeasuring(Bench bench, Finishes finishes, TakeSounds sounds, SoundChecks checks, Jobs jobs, Clock clock) {
        this.bench = bench;
        this.finishes = finishes;
        this.sounds = sounds;
        this.checks = checks;
        this.jobs = jobs;
        this.clock = clock;
    }

    @Configuration
    static class Schedule {
        @Bean
        Task<?> finishJob(FinishMeasuring measuring, Jobs jobs) {
            return jobs.lookedOnAt(KIND, measuring::run, episodeId -> { });
        }
    }

    /** What was edited before this process was started, and not read then. */
    @EventListener(ApplicationReadyEvent.class)
    void lookForUnread() {
        finishes.unread(clock.instant().minus(LATELY)).forEach(episodeId -> waiting.put(episodeId, clock.instant()));
    }

    @EventListener
    void changed(TimelineChanged changed) {
        waiting.put(changed.episodeId(), clock.instant());
    }

    @Scheduled(fixedDelayString = "${mellow.looks.rested-pages:PT1S}")
    void askForThoseThatRest() {
        Instant before = clock.instant().minus(jobs.anyRuns() ? AT_THE_LATEST : AFTER_THE_LAST_EDIT);
        waiting.forEach((episodeId, since) -> {
            if (since.isBefore(before) && waiting.remove(episodeId, since)) {
                jobs.ask(KIND, episodeId, TURN);
            }
        });
    }

    /** The seconds of all episodes that were measured lately, some 25 MB at most; what is measured again has the same numbers. */
    private static final class MeasuredSeconds implements BlockPasses.Known {

        private static final int MOST = 30_000;
        private static final Duration KEPT = Duration.ofHours(1);
        private final Cache<BlockPasses.Window, BlockPasses.Block> seconds = Caffeine.newBuilder().maximumSize(MOST).expireAfterAccess(KEPT).build();

        @Override
        public Optional<BlockPasses.Block> find(BlockPasses.Window window) {
            return Optional.ofNullable(seconds.getIfPresent(window));
        }

        @Override
        public void keep(BlockPasses.Window window, BlockPasses.Block block) {
            seconds.put(window, block);
        }
    }

    void run(long episodeId) throws IOException {
        Head head;
        try {
            head = bench.head(episodeId);
        } catch (NotFound gone) {
            return;
        }
        if (head.timeline().endFrame() == 0 || finishes.read(episodeId).filter(read -> read.revision() == head.seq()).isPresent()) {
            return;
        }
        checks.prepare(head.timeline());
        HouseSound house = checks.houseSound(episodeId);
        try (Mixer mixer = new Mixer(head.timeline(), sounds)) {
            Mastering mastering = Mastering.find(new BlockPasses(head.timeline(), mixer, measured), house.loudnessLufs(), house.ceilingDbtp());
            finishes.keep(episodeId, head.seq(), Finish.of(mastering));
            MixCheck heard = new MixCheck();
            try (SampleSource finished = mastering.apply(mixer.whole())) {
                SampleSink.drain(finished, heard);
            }
            finishes.keepReport(episodeId, head.seq(), checks.stored().write(checks.check(episodeId, head.timeline(), heard, mastering)));
        } catch (SoundNotMade notYet) {
            waiting.put(episodeId, clock.instant());
        }
    }
}

package org.mellowclass.app.store;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;

/** Deletes what no row has named for a day: the files of work that was killed between the store and the database. */
@Component
class SoundSweeper {

    private static final Logger LOG = LoggerFactory.getLogger(SoundSweeper.class);
    private static final Duration GRACE = Duration.ofDays(1);
    private static final Duration EVERY = Duration.ofHours(6);

    private final SoundStore store;
    private final List<NamedSounds> named;
    private final Clock clock;

    SoundSweeper(SoundStore store, List<NamedSounds> named, Clock clock) {
        this.store = store;
        this.named = named;
        this.clock = clock;
    }

    @Configuration
    static class Schedule {
        @Bean
        RecurringTask<Void> soundSweeperJob(SoundSweeper sweeper) {
            return Tasks.recurring("sweep-sounds", FixedDelay.of(EVERY)).execute((instance, context) -> sweeper.sweep());
        }
    }

    void sweep() {
        Instant before = clock.instant().minus(GRACE);
        Set<String> kept = new HashSet<>();
        named.forEach(feature -> kept.addAll(feature.keys()));
        try {
            int deleted = store.sweep(kept, before);
            LOG.info("swept {} files that no row names", deleted);
        } catch (IOException e) {
            LOG.error("the sound store could not be swept", e);
        }
    }
}
